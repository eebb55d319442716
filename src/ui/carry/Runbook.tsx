"use client";

import { useMemo } from "react";
import { cardsOf, type Card } from "@/core/carrying/card";
import { checkWords } from "@/core/carrying/driveCheck";
import type { Plan } from "@/core/document/plan";
import { hoursWords } from "@/core/time/hoursWords";
import { walkPlan } from "@/core/walk/walkPlan";
import { useUnit } from "../preferences/preferences";
import { today } from "../today";
import { whenWords } from "./when";

/** All steps that are to be carried out, on paper: what to do at each, with boxes to tick. */
export function Runbook({ plan, planned }: { plan: Plan; planned: (step: string) => string }) {
  const [unit] = useUnit();
  const cards = useMemo(() => cardsOf(walkPlan(plan, unit, undefined, today())), [plan, unit]);
  const whenOf = (step: string) => {
    const running = plan.underWay?.find((each) => each.step === step);
    return running ? `Under way since ${whenWords(running.start)}.` : planned(step);
  };
  return (
    <ol>
      {cards.map((card, i) => (
        <li key={card.step.id} className="mt-4 border-t border-line-strong pt-2">
          <PaperCard card={card} number={i + 1} when={whenOf(card.step.id)} />
        </li>
      ))}
    </ol>
  );
}

function PaperCard({ card, number, when }: { card: Card; number: number; when: string }) {
  return (
    <>
      <h2 className="font-serif text-lg">
        {number}. {card.label}
      </h2>
      <p>
        {card.does} {when}
      </p>
      {card.blocks.length > 0 ? (
        <>
          <p>As the box then is, this cannot be done. Change the plan first.</p>
          <Heeded findings={card.blocks} />
        </>
      ) : (
        <Course card={card} />
      )}
    </>
  );
}

const Heeded = ({ findings }: { findings: Card["warnings"] }) =>
  findings.map(({ message }) => (
    <p key={message} className="font-semibold">
      {message}
    </p>
  ));

/** What to do, in its order, with lines to write on. */
function Course({ card }: { card: Card }) {
  const { work } = card;
  return (
    <>
      <Heeded findings={card.warnings} />
      {card.atHand.length > 0 && <p>Have at hand: {card.atHand.join("; ")}.</p>}
      <Ticks
        title="Is it this drive?"
        lines={card.checks.map((check) =>
          [checkWords(check), check.make, check.serial ? `serial number ${check.serial}` : ""]
            .filter(Boolean)
            .join(" · "),
        )}
      />
      <Ticks title="What to do" lines={card.acts.first} />
      {work && (
        <p className="mt-1">
          It takes {hoursWords(work.hours)}. {work.shows} {card.meanwhile}
        </p>
      )}
      {card.never.length > 0 && <p className="mt-1">Meanwhile: {card.never.join(" ")}</p>}
      <p className="mt-1">{card.ended}</p>
      <Ticks title="Then" lines={card.acts.last} />
      <p className="mt-1">If the box says something else: {card.otherwise}</p>
      <p className="mt-2 text-soft">
        Begun ____________________ Ended ____________________
        {card.size && ` The box shows (${card.size.shown} expected) ______________`}
      </p>
    </>
  );
}

function Ticks({ title, lines }: { title: string; lines: readonly string[] }) {
  if (lines.length === 0) return null;
  return (
    <>
      <h3 className="mt-1 font-semibold">{title}</h3>
      <ul>
        {lines.map((line) => (
          <li key={line} className="flex gap-2">
            <span aria-hidden="true" className="mt-1 inline-block size-3 shrink-0 border border-ink" />
            {line}
          </li>
        ))}
      </ul>
    </>
  );
}
