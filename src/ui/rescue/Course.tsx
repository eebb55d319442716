"use client";

import { exposedWords } from "@/core/walk/exposedWords";
import { Check } from "lucide-react";
import Link from "next/link";
import { useEffect, useMemo, useRef, useState } from "react";
import { applyCommand } from "@/core/commands/applyCommand";
import type { Command } from "@/core/document/command";
import type { Plan } from "@/core/document/plan";
import { part } from "../kit/part";
import type { Rescue, RescueAct, RescueChoices } from "@/core/rescue/rescue";
import { hoursWords, lengthWords } from "@/core/time/hoursWords";
import { counted } from "@/core/words/counted";
import { survivesMeanwhile } from "@/core/words/survives";
import { Button } from "../kit/Button";
import { PrintButton } from "../kit/PrintButton";
import { Explained } from "../kit/Explained";
import { Answers } from "./Answers";
import { Questions } from "./Questions";
import type { PlaceProps } from "../shell/planPlace";
import { useTicks } from "../kit/useTicks";
import { say } from "../kit/say";

interface Props extends PlaceProps {
  pool: string;
  rescue: Rescue;
  command: Extract<Command, { kind: "insert-sequence" }> | null;
  onChoose: (choices: RescueChoices) => void;
}

/** A short heading for each kind of act. */
const HEADINGS: ReadonlyMap<string, string> = new Map([
  ["under-way", "Was a step under way?"],
  ["stop", "Stop what runs by itself"],
  ["stop-schedule", "Stop the schedule"],
  ["find", "Find the drive"],
  ["half", "See that it can be read"],
  ["copy", "Copy what matters"],
  ["loose", "Loose or dead?"],
  ["buy", "Get a drive"],
  ["test", "Test"],
  ["swap", "Put the new drive in"],
  ["back-in", "Put it back in"],
  ["spread", "Spread it over the others"],
  ["rebuild", "Rebuild"],
  ["restore", "Restore"],
  ["replace", "Replace"],
  ["check", "Check"],
  ["resume", "Start the schedule again"],
  ["spare", "A spare again"],
  ["backup", "Back up"],
  ["helper", "Cache and log"],
  ["system", "The box does not start"],
  ["copy-dead", "Read the dead drive"],
  ["backups", "Look at your backups"],
  ["new-pool", "Make the pool again"],
  ["rest", "Leave the rest alone"],
  ["given-up", "What no backup holds"],
]);

/** An act by what it says. */
const named = (act: RescueAct | undefined): string => (act ? `${act.what}: ${act.does}` : "");

/** How long the whole takes, and how much of it is exposed. */
function Length({ rescue }: { rescue: Rescue }) {
  if (rescue.hours.expected === 0) return null;
  return (
    <p className="text-soft">
      {rescue.condition.redundancyLeft < 0 ? "Until it is there again" : "Until it is whole again and checked"}:{" "}
      {hoursWords(rescue.hours)}, an estimate
      {rescue.bareHours > 0 && rescue.condition.redundancyLeft >= 0
        ? `; for ${lengthWords(rescue.bareHours)} of that ${survivesMeanwhile(0)}`
        : ""}
      .
    </p>
  );
}

/** The plan with the steps of the course, and which those are; null where there are none. */
function withCourse(plan: Plan, command: Props["command"]) {
  const result = command && applyCommand(plan, command);
  if (!result?.ok) return null;
  const before = new Set(plan.steps.map(({ id }) => id));
  return { plan: result.plan, steps: result.plan.steps.flatMap(({ id }) => (before.has(id) ? [] : [id])) };
}

const TrialChance = part(() => import("../chance/TrialChance").then((module) => module.TrialChance));

/** What to do, one thing at a time; the others are in sight and a press away. */
export function Course({ plan, pool, act, planHref, rescue, command, onChoose }: Props) {
  const planned = useMemo(() => withCourse(plan, command), [plan, command]);
  const { isTicked, tick } = useTicks(`${planHref}/${pool}`, "sessionStorage");
  const isDone = (i: number) => isTicked(named(rescue.acts[i]));
  const first = rescue.acts.findIndex((_, i) => !isDone(i));
  const [opened, open] = useState<number | null>(null);
  const current = opened ?? (first < 0 ? rescue.acts.length - 1 : first);
  const heading = useRef<HTMLHeadingElement>(null);
  const moved = useRef(false);
  useEffect(() => {
    if (moved.current) heading.current?.focus();
    moved.current = false;
  }, [current]);
  const go = (to: number) => {
    moved.current = true;
    open(to);
  };
  const done = (i: number) => {
    tick(named(rescue.acts[i]), true);
    say(`Done: ${headingOf(rescue.acts, i)}.`);
    if (i + 1 < rescue.acts.length) go(i + 1);
  };
  return (
    <section aria-labelledby="course">
      <div className="flex flex-wrap items-baseline justify-between gap-2">
        <h2 id="course" className="font-serif text-lg">
          One thing after the other
        </h2>
        <PrintButton />
      </div>
      <Length rescue={rescue} />
      {planned && <TrialChance planned={planned} />}
      <ol className="mt-2 border-t border-line">
        {rescue.acts.map((each, i) => (
          <li key={i} aria-current={i === current ? "step" : undefined} className="border-b border-line">
            {i === current ? (
              <div className="py-3">
                <h3 ref={heading} tabIndex={-1} className="font-serif text-xl">
                  {i + 1}. {headingOf(rescue.acts, i)}
                </h3>
                <ActBody act={each} />
                <Answers plan={plan} act={each} rescue={rescue} tell={act} />
                <div className="mt-3 flex flex-wrap gap-2 print:hidden">
                  <Button look="main" onClick={() => done(i)}>
                    {i + 1 < rescue.acts.length ? "Done, next" : "Done"}
                  </Button>
                  {i > 0 && <Button onClick={() => go(i - 1)}>Back</Button>}
                </div>
              </div>
            ) : (
              <>
                <button
                  type="button"
                  onClick={() => go(i)}
                  className="flex w-full items-baseline gap-2 py-2 text-left hover:bg-wall print:hidden"
                >
                  <span className="w-6 shrink-0 text-right text-soft">
                    {isDone(i) ? (
                      <Check size={16} role="img" aria-label="Done" className="inline text-green" />
                    ) : (
                      `${i + 1}.`
                    )}
                  </span>
                  <span className="min-w-0 flex-1">{headingOf(rescue.acts, i)}</span>
                  {each.hours && <span className="shrink-0 text-soft">{lengthWords(each.hours.expected)}</span>}
                </button>
                <div className="hidden py-2 print:block">
                  <p className="font-semibold">
                    {i + 1}. {headingOf(rescue.acts, i)}
                  </p>
                  <ActBody act={each} />
                </div>
              </>
            )}
          </li>
        ))}
      </ol>
      <Questions questions={rescue.questions} onChoose={onChoose} />
      {rescue.blocks.length > 0 && (
        <div role="alert" className="mt-3 border-l-4 border-geranium pl-3">
          <p className="font-semibold">As it is, it cannot be done:</p>
          {rescue.blocks.map((sentence) => (
            <p key={sentence}>{sentence}</p>
          ))}
        </div>
      )}
      <div className="mt-4 flex flex-wrap items-center gap-3 print:hidden">
        {command ? (
          <Button look="main" disabled={rescue.blocks.length > 0} onClick={() => act(command, true)}>
            Put {counted(command.steps.length, "step")} into the plan
          </Button>
        ) : (
          <p>Its steps are in the plan.</p>
        )}
        <Link href={planHref} className="inline-block py-1 font-semibold text-indigo underline underline-offset-2">
          See it on the box
        </Link>
      </div>
    </section>
  );
}

/** The heading of an act; of several of a kind, which one. */
function headingOf(acts: readonly RescueAct[], i: number): string {
  const what = acts[i]?.what ?? "";
  const same = acts.flatMap((each, at) => (each.what === what ? [at] : []));
  const name = HEADINGS.get(what) ?? "Then";
  return same.length > 1 ? `${name} (${same.indexOf(i) + 1} of ${same.length})` : name;
}

function ActBody({ act }: { act: RescueAct }) {
  return (
    <>
      <p className="mt-1 text-lg leading-snug">
        <Explained text={act.does} />
      </p>
      <p className="mt-1 text-soft">
        <Explained text={act.why} />
      </p>
      {act.hours && (
        <p className="mt-1 text-soft">
          Takes {hoursWords(act.hours)}
          {act.redundancyDuring === 0 ? `; ${exposedWords({ ...act, redundancy: 0 }, act.hours?.expected ?? 0)}` : ""}.
        </p>
      )}
    </>
  );
}
