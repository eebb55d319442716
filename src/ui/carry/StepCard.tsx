"use client";

import Link from "next/link";
import { useRef, useState } from "react";
import type { Card } from "@/core/carrying/card";
import type { DriveCheck } from "@/core/carrying/driveCheck";
import type { Command } from "@/core/document/command";
import type { Plan, ShownSize, StepUnderWay } from "@/core/document/plan";
import { Button } from "../kit/Button";
import { Explained } from "../kit/Explained";
import { part } from "../kit/part";
import { forgetTicks, useTicks } from "../kit/useTicks";
import { useUnit } from "../preferences/preferences";
import { isThere, type NoPractice, type PracticeBox } from "../practice/usePractice";
import { nowInstant } from "../reading/nowInstant";
import { ActList } from "./ActList";
import { IdentityField } from "./IdentityField";
import { Otherwise } from "./Otherwise";
import { Part } from "./Part";
import { SeenField } from "./SeenField";
import { HowLong, UnderWay } from "./UnderWay";
import { WhenField } from "./WhenField";
import { say } from "../kit/say";

const StepChance = part(() => import("../chance/StepChance").then((module) => module.StepChance));

interface Props {
  plan: Plan;
  planHref: string;
  card: Card;
  running: StepUnderWay | undefined;
  /** When it is to be begun, by the plan's dates; empty where it has none. */
  planned: string;
  /** The practice box on which it is carried out, where there is one. */
  practice: PracticeBox | NoPractice;
  act: (command: Command, offersUndo?: boolean) => string | null;
}

/** Whether nothing can be recorded yet, since there is a practice box that would have to do it. */
const isAwaited = (practice: PracticeBox | NoPractice) =>
  practice === "loading" || (typeof practice === "object" && !isThere(practice));

/** What names a confirmed drive among the ticks. */
const tickOf = ({ drive }: DriveCheck) => `drive: ${drive}`;

/** One step to be carried out: before it is begun, and while it runs. */
export function StepCard(props: Props) {
  const { card, running, planned, planHref } = props;
  const place = `${planHref}/${card.step.id}`;
  const ticks = useTicks(place, "localStorage");
  return (
    <article aria-labelledby={`card-${card.step.id}`} className="border-t-2 border-indigo pt-3">
      <h2
        id={`card-${card.step.id}`}
        // What an act has led to gets the focus: the card of the step, or that it is under way.
        {...(running ? {} : { "data-step": card.step.id, "aria-current": "step" })}
        tabIndex={-1}
        className="font-serif text-2xl leading-tight outline-none"
      >
        {card.label}
      </h2>
      <p className="mt-1 text-[1.05rem] leading-snug">
        <Explained text={card.does} />
      </p>
      <p className="text-soft">
        <Explained text={card.why} />
      </p>
      <p className="mt-1 text-soft">
        {card.where === "box" ? "At the box." : "At the screen: nothing of the box has to be touched."}
        {planned && !running ? ` ${planned}` : ""}
      </p>
      <StepChance plan={props.plan} step={card.step.id} planHref={planHref} />
      {card.warnings.map(({ message }) => (
        <p key={message} className="mt-2 border-l-4 border-ochre-text pl-3">
          <Explained text={message} />
        </p>
      ))}
      {running ? (
        <Runs {...props} running={running} place={place} ticks={ticks} />
      ) : card.blocks.length > 0 ? (
        <Blocked card={card} planHref={planHref} />
      ) : (
        <Begins {...props} place={place} ticks={ticks} />
      )}
      <Otherwise card={card} planHref={planHref} act={props.act} />
    </article>
  );
}

/** What the box showed of a size, as it is kept. */
const shownSize = ({ size }: Card, seen: string): { shown?: ShownSize } =>
  size && seen.trim() ? { shown: { predicted: size.bytes, seen: seen.trim() } } : {};

/** What not to do while it runs. */
function Never({ card }: { card: Card }) {
  return (
    <ul className="mt-1 ml-5 list-disc">
      {card.never.map((sentence) => (
        <li key={sentence}>
          <Explained text={sentence} />
        </li>
      ))}
    </ul>
  );
}

type Ticks = ReturnType<typeof useTicks>;

function Blocked({ card, planHref }: { card: Card; planHref: string }) {
  return (
    <div role="alert" className="mt-3 border-l-4 border-geranium pl-3">
      <p className="font-semibold">As the box is, this cannot be done:</p>
      {card.blocks.map(({ message }) => (
        <p key={message}>{message}</p>
      ))}
      <Link href={planHref} className="inline-block py-1 font-semibold text-indigo underline underline-offset-2">
        Change the plan
      </Link>
    </div>
  );
}

/** Before it is begun: what to have, whether it is the drive, what to do. */
function Begins({ plan, card, practice, act, place, ticks }: Props & { place: string; ticks: Ticks }) {
  const [unit] = useUnit();
  const [at, setAt] = useState<string | null>(null);
  const [missing, setMissing] = useState(false);
  const [refused, setRefused] = useState<string | null>(null);
  const [seen, setSeen] = useState("");
  const fields = useRef(new Map<string, HTMLInputElement | null>());
  // Where the box does nothing by itself all is done in one go.
  const atOnce = card.work ? card.acts.first : [...card.acts.first, ...card.acts.last];
  const unknown = card.checks.filter((check) => !ticks.isTicked(tickOf(check)));
  const begin = () => {
    const [first] = unknown;
    setMissing(first !== undefined);
    if (first) return fields.current.get(first.drive)?.focus();
    const step = card.step.id;
    const no = isThere(practice) ? practice.begin(card.step, card.label, plan, card.work === null) : null;
    setRefused(no);
    if (no !== null) return say(`The practice box refuses it. ${no}`);
    const when = at ?? nowInstant();
    if (card.work) {
      if (act({ kind: "start-step", step, at: when, unit }, true) === null) say(`Begun: ${card.label}.`);
      return;
    }
    if (act({ kind: "end-step", step, at: when, unit, ...shownSize(card, seen) }, true) !== null) return;
    forgetTicks(place);
    say(`Done: ${card.label}.`);
  };
  const confirm = (check: DriveCheck, serial?: string) => {
    if (serial) {
      const changes = { serial, toBuy: null };
      if (act({ kind: "edit-drive", drive: check.drive, changes }) !== null) return;
    }
    ticks.tick(tickOf(check), true);
    say(`Yes: this is ${check.name}.`);
  };
  return (
    <>
      {card.atHand.length > 0 && (
        <Part title="Have at hand">
          <ul className="ml-5 list-disc">
            {card.atHand.map((thing) => (
              <li key={thing}>{thing}</li>
            ))}
          </ul>
        </Part>
      )}
      {card.checks.length > 0 && (
        <Part title="Is it this drive?">
          <ul>
            {card.checks.map((check) => (
              <IdentityField
                key={check.drive}
                ref={(field) => void fields.current.set(check.drive, field)}
                check={check}
                plan={plan}
                confirmed={ticks.isTicked(tickOf(check))}
                onConfirm={(serial) => confirm(check, serial)}
                onAgain={() => ticks.tick(tickOf(check), false)}
              />
            ))}
          </ul>
        </Part>
      )}
      <Part title="What to do">
        <ActList label="What to do" acts={atOnce} isTicked={ticks.isTicked} onTick={ticks.tick} />
      </Part>
      <Part title="What then happens">
        <HowLong plan={plan} card={card} />
        {card.work && (
          <>
            <p className="mt-1">{card.work.shows}</p>
            <p className="mt-1 text-soft">{card.meanwhile}</p>
            <Never card={card} />
          </>
        )}
        {!card.work && <p className="mt-1">{card.ended}</p>}
        {!card.work && <SeenField plan={plan} card={card} value={seen} onChange={setSeen} act={act} />}
      </Part>
      <div className="mt-4 flex flex-wrap items-end gap-2">
        <Button look="main" className="h-12! px-5! text-lg" disabled={isAwaited(practice)} onClick={begin}>
          {card.work ? "The box has begun" : "Done"}
        </Button>
        <WhenField label={card.work ? "Begun" : "Done"} value={at} onChange={setAt} />
      </div>
      {missing && unknown.length > 0 && (
        <p role="alert" className="mt-2 font-semibold text-geranium">
          First make sure of the drive: type what stands on its label.
        </p>
      )}
      {refused !== null && (
        <p role="alert" className="mt-2 font-semibold text-geranium">
          The practice box refuses it. {refused} Nothing was recorded.
        </p>
      )}
    </>
  );
}

/** While it runs, and how it ends. */
function Runs({
  plan,
  card,
  running,
  practice,
  act,
  place,
  ticks,
}: Props & { running: StepUnderWay; place: string; ticks: Ticks }) {
  const [unit] = useUnit();
  const [at, setAt] = useState<string | null>(null);
  const [seen, setSeen] = useState("");
  const [refused, setRefused] = useState<string | null>(null);
  const end = () => {
    const no = isThere(practice) ? practice.notEnded(card.step.id) : null;
    setRefused(no);
    if (no !== null) return;
    const command = { kind: "end-step", step: card.step.id, at: at ?? nowInstant(), unit } as const;
    if (act({ ...command, ...shownSize(card, seen) }, true) !== null) return;
    forgetTicks(place);
    say(`Done: ${card.label}.`);
  };
  return (
    <>
      <UnderWay plan={plan} card={card} running={running} act={act} />
      <Part title="Meanwhile">
        {card.work && <p>{card.work.shows}</p>}
        <Never card={card} />
        <p className="mt-1 text-soft">{card.meanwhile}</p>
      </Part>
      <Part title="When it has ended">
        <p>{card.ended}</p>
        {card.acts.last.length > 0 && (
          <ActList label="When it has ended" acts={card.acts.last} isTicked={ticks.isTicked} onTick={ticks.tick} />
        )}
        <SeenField plan={plan} card={card} value={seen} onChange={setSeen} act={act} />
        <div className="mt-4 flex flex-wrap items-end gap-2">
          <Button look="main" className="h-12! px-5! text-lg" disabled={isAwaited(practice)} onClick={end}>
            It has ended
          </Button>
          <WhenField label="Ended" value={at} onChange={setAt} />
        </div>
        {refused !== null && (
          <p role="alert" className="mt-2 font-semibold text-geranium">
            {refused} Nothing was recorded.
          </p>
        )}
      </Part>
    </>
  );
}
