"use client";

import { useRef, useState } from "react";
import type { Plan } from "@/core/document/plan";
import { storedOf } from "@/core/rehearsal/losses";
import { bestFirst, type Mend } from "@/core/rehearsal/mends";
import { ageWords } from "@/core/rehearsal/summary";
import type { Tally } from "@/core/rehearsal/table";
import { lengthWords } from "@/core/time/hoursWords";
import { counted } from "@/core/words/counted";
import type { UnitFamily } from "@/core/bytes/formatBytes";
import { Button } from "../kit/Button";
import { costWords, proposalWords } from "../mends/proposalWords";
import { useUnit } from "../preferences/preferences";
import type { PlaceProps } from "../shell/planPlace";
import { stepNumber } from "./caseWords";
import { Refused } from "./Refused";
import type { Mends } from "./useTrials";

const mendWords = (mend: Mend, plan: Plan, unit: UnitFamily): string =>
  proposalWords(mend, stepNumber(plan, mend.step), unit);

/** The data that comes back newest by it, in words; null where none does. */
function newerWords({ before, after }: Mend, plan: Plan): string | null {
  const names = new Map(storedOf(plan).map(({ id, name }) => [id, name || "What is stored"]));
  const [best] = [...before.tolls]
    .map(([id, { oldest }]) => ({ id, was: oldest, is: after.tolls.get(id)?.oldest ?? 0 }))
    .sort((a, b) => b.was - b.is - (a.was - a.is));
  if (!best || best.was - best.is < 0.5) return null;
  return `${names.get(best.id)}: back ${ageWords(best.is)}, instead of ${ageWords(best.was)}.`;
}

/** What it brings, of the mishaps that it is for. */
function gainWords(mend: Mend, plan: Plan): string {
  const { before, after } = mend;
  const bad = ({ lost, restored }: Tally) => lost + restored;
  const of = `of ${counted(before.tried, "mishap")}`;
  if (after.lost < before.lost) return `Data is lost for good in ${after.lost} instead of ${before.lost} ${of}.`;
  if (bad(after) < bad(before)) return `Data is lost on the box in ${bad(after)} instead of ${bad(before)} ${of}.`;
  return (
    newerWords(mend, plan) ??
    `Degraded for at most ${lengthWords(after.longest)} longer, instead of ${lengthWords(before.longest)}.`
  );
}

/** Changes of the plan that were tried and help, each with what it brings and costs, and to be taken at a press. */
export function MendList({ mends, plan, act }: { mends: Mends; plan: Plan } & Pick<PlaceProps, "act">) {
  const [unit] = useUnit();
  const { state } = mends;
  const heading = useRef<HTMLHeadingElement>(null);
  const [refused, setRefused] = useState<string | null>(null);
  if (state === "ready") return null;
  return (
    <section aria-labelledby="mends" className="mt-6">
      <h2 id="mends" ref={heading} tabIndex={-1} className="font-serif text-lg outline-none">
        What would help
      </h2>
      <Refused why={refused} />
      {state === "running" && (
        <p className="mt-1 flex flex-wrap items-center gap-3 text-soft">
          <progress
            aria-label="Changes tried"
            className="h-2 w-40 accent-indigo"
            value={mends.tried}
            max={Math.max(1, mends.all)}
          />
          Changes of the plan are tried, each with every mishap …
          <Button small onClick={mends.cancel}>
            Cancel
          </Button>
        </p>
      )}
      {typeof state === "object" && (
        <p role="alert" className="mt-1 text-geranium">
          {state.trouble}
        </p>
      )}
      <ul className="mt-1 max-w-4xl">
        {bestFirst(mends.mends).map((mend) => {
          const words = mendWords(mend, plan, unit);
          return (
            <li key={words} className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-line py-2">
              <div className="min-w-0 flex-1 basis-72">
                <p className="font-semibold">{words}</p>
                <p>
                  {gainWords(mend, plan)} <span className="text-soft">{costWords(mend, plan.currency)}</span>
                </p>
              </div>
              <Button
                aria-label={`Change the plan: ${words}`}
                onClick={() => {
                  heading.current?.focus();
                  setRefused(act(mend.command, true));
                }}
              >
                Change the plan
              </Button>
            </li>
          );
        })}
      </ul>
      {state !== "running" && mends.mends.length === 0 && (
        <p className="mt-1 text-soft">
          {state === "cancelled"
            ? "Stopped before any was found."
            : mends.all === 0
              ? "No mishap costs data that a change of the plan could save."
              : `${counted(mends.all, "change")} of the plan ${mends.all === 1 ? "was" : "were"} tried, and none makes the worst better.`}
        </p>
      )}
    </section>
  );
}
