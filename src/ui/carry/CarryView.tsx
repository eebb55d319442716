"use client";

import "@/core/commands/recordingCommands";
import Link from "next/link";
import { useMemo } from "react";
import { cardOf } from "@/core/carrying/card";
import { currentSteps } from "@/core/carrying/stepNow";
import type { DoneStep, Plan } from "@/core/document/plan";
import { hoursBetween } from "@/core/logbook/recordedTime";
import { hoursWords, lengthWords } from "@/core/time/hoursWords";
import { counted, oneOrMany } from "@/core/words/counted";
import { useUnit } from "../preferences/preferences";
import { LackingPools } from "../rescue/LackingPools";
import { predict } from "@/core/prediction/predict";
import { usePrinting } from "../kit/usePrinting";
import { PracticePanel } from "../practice/practicePart";
import { usePractice } from "../practice/usePractice";
import type { PlaceProps } from "../shell/planPlace";
import { today } from "../today";
import { Runbook } from "./Runbook";
import { SheetActs } from "./SheetActs";
import { StepCard } from "./StepCard";
import { usePlanned } from "./usePlanned";
import { whenWords } from "./when";

const LINK = "inline-block py-1 font-semibold text-indigo underline underline-offset-2";

/** The plan carried out at the box: one step at a time, and what has been done. */
export function CarryView({ plan, act, planHref }: PlaceProps) {
  const [unit] = useUnit();
  const steps = useMemo(() => currentSteps(plan), [plan]);
  const cards = useMemo(() => steps.flatMap(({ id }) => cardOf(plan, id, unit, today()) ?? []), [plan, steps, unit]);
  const pools = useMemo(() => predict(plan, unit).pools, [plan, unit]);
  const left = plan.steps.filter((step) => !step.disabled).length;
  const done = (plan.history ?? []).filter(({ outcome }) => outcome === "done").length;
  const planned = usePlanned(plan);
  const practice = usePractice();
  const printing = usePrinting();
  return (
    <main id="main" className="min-w-0 flex-1 px-4 py-4 md:px-6 desk:overflow-y-auto" tabIndex={-1}>
      <div className="mx-auto max-w-2xl">
        <div className="flex flex-wrap items-baseline justify-between gap-x-4">
          <h1 className="font-serif text-2xl">Carry out</h1>
          <Link href={`${planHref}/logbook`} className={LINK}>
            Logbook
          </Link>
        </div>
        <p className="text-soft">
          {left > 0 ? `${oneOrMany(left, "One step", "steps")} to go` : "No step to go"}
          {done > 0 ? `, ${counted(done, "step")} done` : ""}.
        </p>
        {printing && <Runbook plan={plan} planned={planned} />}
        <PracticePanel plan={plan} />
        <LackingPools pools={pools} planHref={planHref} />
        <div className="mt-4 space-y-10 print:hidden">
          {cards.map((card) => (
            <StepCard
              key={`${card.step.id}`}
              plan={plan}
              planHref={planHref}
              card={card}
              running={plan.underWay?.find(({ step }) => step === card.step.id)}
              planned={planned(card.step.id)}
              practice={practice}
              act={act}
            />
          ))}
        </div>
        {cards.length === 0 && <NothingToDo plan={plan} planHref={planHref} isDone={done > 0} />}
        {left > 0 && <SheetActs plan={plan} act={act} />}
        <Done history={plan.history ?? []} planHref={planHref} />
      </div>
    </main>
  );
}

function NothingToDo({ plan, planHref, isDone }: { plan: Plan; planHref: string; isDone: boolean }) {
  return (
    <div className="mt-4">
      {/* Where the last step has been, the focus goes to this. */}
      <h2 id="steps-heading" tabIndex={-1} className="font-serif text-xl outline-none">
        {isDone ? "All of it is done" : "There is nothing to carry out"}
      </h2>
      <p className="mt-1">
        {isDone
          ? "The plan is now how the box is."
          : plan.steps.length > 0
            ? "Every step of this plan is skipped."
            : "This plan has no steps yet: it shows the box as it is."}{" "}
        <Link href={planHref} className={LINK}>
          Plan what comes next
        </Link>
        , or{" "}
        <Link href={`${planHref}/reading`} className={LINK}>
          read the box
        </Link>{" "}
        to see whether it is so.
      </p>
    </div>
  );
}

/** What has been done last, with what was expected and what came. */
function Done({ history, planHref }: { history: readonly DoneStep[]; planHref: string }) {
  if (history.length === 0) return null;
  return (
    <section aria-labelledby="done" className="mt-8 border-t border-line pt-3">
      <h2 id="done" className="font-serif text-lg">
        Done so far
      </h2>
      <ol>
        {history
          .slice(-6)
          .reverse()
          .map((entry) => (
            <li key={entry.id} className="border-b border-line py-1.5 last:border-0">
              <span className="font-semibold">{entry.label}</span>
              {entry.outcome === "stopped" ? ` · stopped${entry.why ? `: ${entry.why}` : ""}` : ""}
              <span className="block text-soft">
                {whenWords(entry.end)}
                {entry.predicted
                  ? ` · took ${lengthWords(hoursBetween(entry.start, entry.end)).replace("about ", "")}, ` +
                    `expected ${hoursWords(entry.predicted)}`
                  : ""}
                {entry.shown ? ` · the box showed ${entry.shown.seen}` : ""}
              </span>
            </li>
          ))}
      </ol>
      <Link href={`${planHref}/logbook`} className={LINK}>
        All of it, and corrections, in the logbook
      </Link>
    </section>
  );
}
