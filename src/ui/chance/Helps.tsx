"use client";

import Link from "next/link";
import { useEffect, useRef, useState } from "react";
import { LEAST_TOLD, ofBoxes } from "@/core/chance/chanceWords";
import type { Plan } from "@/core/document/plan";
import type { Help, WhatHelps } from "@/core/mends/whatHelps";
import { moneyWords } from "@/core/words/money";
import type { Walk } from "@/core/walk/moment";
import { usualCalendar } from "../calendar/usualCalendar";
import { Button } from "../kit/Button";
import { costWords, proposalWords } from "../mends/proposalWords";
import { useUnit } from "../preferences/preferences";
import { Refused } from "../rehearse/Refused";
import type { PlaceProps } from "../shell/planPlace";
import { today } from "../today";

/** What is known of what helps a plan. */
interface Known {
  of: Plan | null;
  helps: WhatHelps | null;
  trouble: string | null;
}

/** What helps most, worked out in a worker whenever the plan changes; the last list stays until then. */
function useWhatHelps(plan: Plan): Known & { isOld: boolean; again: () => void } {
  const [unit] = useUnit();
  const [known, setKnown] = useState<Known>({ of: null, helps: null, trouble: null });
  const [attempt, setAttempt] = useState(0);
  useEffect(() => {
    let over = false;
    let cancel: (() => void) | null = null;
    const begin = async () => {
      const { startWhatHelps } = await import("@/workers/startChances");
      if (over) return;
      const job = startWhatHelps(plan, { family: unit, day: plan.calendar?.start ?? today() }, usualCalendar());
      ({ cancel } = job);
      const helps = await job.result;
      if (!over) setKnown({ of: plan, helps, trouble: null });
    };
    const timer = setTimeout(() => {
      begin().catch((error: unknown) => {
        const trouble = error instanceof Error ? error.message : "What helps could not be worked out.";
        if (!over) setKnown((old) => ({ ...old, trouble }));
      });
    }, 400);
    return () => {
      over = true;
      clearTimeout(timer);
      cancel?.();
    };
  }, [plan, unit, attempt]);
  return { ...known, isOld: known.of !== plan, again: () => setAttempt((old) => old + 1) };
}

/** What it saves, and for what it can be had. */
function savesWords({ saves, money, hours }: Help, currency: string | undefined): string {
  const each = [
    ...(money !== null && money > 0 ? [`${ofBoxes((saves / money) * 100)} for each ${moneyWords(100, currency)}`] : []),
    ...(hours >= 0.5 && saves / hours >= LEAST_TOLD ? [`${ofBoxes(saves / hours)} for each hour`] : []),
  ];
  return `Saves ${ofBoxes(saves)}${each.length > 0 ? ` (${each.join(", ")})` : ""}.`;
}

interface Props extends Pick<PlaceProps, "act" | "plan" | "planHref"> {
  walked: Walk;
}

/** Changes of the plan that lower the chance of losing something for good, the best first, each taken at a press. */
export function Helps({ plan, act, planHref, walked }: Props) {
  const [unit] = useUnit();
  const { helps: found, isOld, trouble, again } = useWhatHelps(plan);
  const heading = useRef<HTMLHeadingElement>(null);
  const [refused, setRefused] = useState<string | null>(null);
  const numberOf = (step: string | null) => walked.plan.steps.findIndex(({ id }) => id === step) + 1;
  return (
    <section
      aria-labelledby="what-helps"
      className={isOld && found ? "text-soft" : ""}
      aria-busy={isOld && trouble === null}
    >
      <h2
        id="what-helps"
        ref={heading}
        tabIndex={-1}
        className="border-b border-line pb-1 font-serif text-lg outline-none"
      >
        What helps most
      </h2>
      <Refused why={refused} />
      {trouble && (
        <p role="alert" className="flex flex-wrap items-center gap-3 py-2 text-geranium">
          {trouble}
          <Button small onClick={again}>
            Try again
          </Button>
        </p>
      )}
      {!found && !trouble && <p className="py-2 text-soft">Each change is put into the plan and worked out …</p>}
      {found && (
        <p className="py-1.5 text-soft">
          On the way and in the year after it {ofBoxes(found.before)} lose something for good, by any cause. Each line
          is the plan with that change in it, at the expected inputs.
        </p>
      )}
      <ol>
        {found?.helps.map((help) => {
          const words = proposalWords(help, numberOf(help.step), unit);
          return (
            <li
              key={words}
              className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-line py-2 last:border-0"
            >
              <div className="min-w-0 flex-1 basis-72">
                <p className="font-semibold">{words}</p>
                <p>
                  {savesWords(help, plan.currency)} <span className="text-soft">{costWords(help, plan.currency)}</span>
                </p>
              </div>
              {help.command ? (
                <Button
                  disabled={isOld}
                  aria-label={`Put it into the plan: ${words}`}
                  onClick={() => {
                    heading.current?.focus();
                    if (help.command) setRefused(act(help.command, true));
                  }}
                >
                  Put it into the plan
                </Button>
              ) : (
                <Link className="inline-block min-h-[24px] underline" href={`${planHref}/data`}>
                  Say what is stored first
                </Link>
              )}
            </li>
          );
        })}
      </ol>
      {found?.helps.length === 0 && (
        <p className="text-soft">No single change of this plan saves as much as 1 of 100,000.</p>
      )}
    </section>
  );
}
