"use client";

import "@/core/commands/recordingCommands";
import Link from "next/link";
import { useEffect, useMemo, useRef, useState } from "react";
import type { Plan } from "@/core/document/plan";
import { goneIn } from "@/core/box/gone";
import { conditionWords } from "@/core/failures/conditionWords";
import { predict } from "@/core/prediction/predict";
import { isOtherBox, type Difference } from "@/core/reading/differences";
import type { PrintedBox } from "@/core/reading/printedBox";
import { lastReading, takeAsRead } from "@/core/reading/asRead";
import { standingOf, type Standing } from "@/core/reading/standing";
import { momentWords } from "@/core/time/dateWords";
import { hoursWords } from "@/core/time/hoursWords";
import { walkPlan } from "@/core/walk/walkPlan";
import { counted } from "@/core/words/counted";
import { Button } from "../kit/Button";
import { useUnit } from "../preferences/preferences";
import { OfferPractice } from "../practice/OfferPractice";
import { PracticePanel } from "../practice/practicePart";
import { readBoxText } from "@/exchange/boxText/readBoxText";
import type { PlaceProps } from "../shell/planPlace";
import { BoxShown } from "./BoxShown";
import { BoxSource } from "./BoxSource";
import { FoundBox } from "./FoundBox";
import { nowInstant } from "./nowInstant";

interface Taken {
  printed: PrintedBox;
  at: string;
  /** Whether it lists none of the plan's drives. */
  isOther: boolean;
}

const LINK = "inline-block py-0.5 font-semibold text-indigo underline underline-offset-2";

/** How the box is now: read, held against the moment where the plan should be, and gone on from there. */
export function ReadingView({ plan, act, planHref }: PlaceProps) {
  const [unit] = useUnit();
  const [text, setText] = useState("");
  const [taken, setTaken] = useState<Taken | null>(null);
  const [readings, setReadings] = useState(0);
  const read = (printed: PrintedBox) => {
    const at = nowInstant();
    const { recognised, differences } = standingOf(printed, plan, unit, at);
    // What is no reading of this box is not kept as one.
    const isOther = isOtherBox(recognised, plan);
    if (!isOther) act({ kind: "take-reading", reading: lastReading(recognised, differences, at) });
    setTaken({ printed, at, isOther });
    setReadings(readings + 1);
  };
  const readText = (given: string) => {
    const result = readBoxText(given);
    if (result.ok) read(result.printed);
  };
  return (
    <main id="main" className="min-w-0 flex-1 px-4 py-4 md:px-6 desk:overflow-y-auto" tabIndex={-1}>
      <div className="mx-auto max-w-4xl">
        <h1 className="font-serif text-2xl">How is the box now?</h1>
        <PracticePanel plan={plan} onRead={readText} />
        {taken?.isOther ? (
          <FoundBox
            printed={taken.printed}
            heading="This is another box: it lists none of the drives of this plan. Nothing was changed."
            back="Read something else"
            onBack={() => setTaken(null)}
          />
        ) : taken ? (
          <Held key={readings} taken={taken} plan={plan} act={act} planHref={planHref} onAgain={() => setTaken(null)} />
        ) : (
          <div className="mt-3 space-y-3">
            <LastTime plan={plan} />
            <BoxSource text={text} onText={setText} onRead={read} />
            <OfferPractice plan={plan} />
          </div>
        )}
      </div>
    </main>
  );
}

const zoneOf = (plan: Plan): string => plan.calendar?.timeZone ?? Intl.DateTimeFormat().resolvedOptions().timeZone;

/** When the box was read last, and what came of it. */
function LastTime({ plan }: { plan: Plan }) {
  const { lastReading: last } = plan;
  if (!last) return <p className="text-soft">The box of this plan has not been read yet.</p>;
  const differences = last.differences ?? 0;
  return (
    <p className="text-soft">
      Read last on {momentWords(Date.parse(last.at), zoneOf(plan))}:{" "}
      {differences === 0 ? "it was as planned." : `${counted(differences, "thing was", "things were")} not as planned.`}
    </p>
  );
}

interface HeldProps extends PlaceProps {
  taken: Taken;
  onAgain: () => void;
}

function Held({ taken, plan, act, planHref, onAgain }: HeldProps) {
  const [unit] = useUnit();
  const [answers, setAnswers] = useState<Record<string, string>>({});
  const standing = useMemo(
    () => standingOf(taken.printed, plan, unit, taken.at, answers),
    [taken, plan, unit, answers],
  );
  const heading = useRef<HTMLHeadingElement>(null);
  useEffect(() => heading.current?.focus(), []);
  const { recognised, differences } = standing;
  const others = differences.filter(({ code }) => code !== "array-running");
  const set = () => act(takeAsRead(recognised, taken.at, [], standing.done), true);
  return (
    <div className="mt-3 space-y-6">
      <section aria-labelledby="standing">
        <h2 id="standing" ref={heading} tabIndex={-1} className="text-lg font-semibold outline-none">
          {verdictOf(standing, plan)}
        </h2>
        <Safety
          recognised={recognised}
          // Where something that differs leads there already, once is enough.
          planHref={differences.some(({ leadsToRescue }) => leadsToRescue) ? null : planHref}
        />
        <Running standing={standing} plan={plan} at={taken.at} act={act} planHref={planHref} />
        <ul className="mt-2 divide-y divide-line">
          {differences.map((difference) => (
            <DifferenceRow
              key={`${difference.code} ${difference.message}`}
              difference={difference}
              act={(command, offersUndo) =>
                act(command.kind === "take-reading" ? { ...command, done: standing.done } : command, offersUndo)
              }
              planHref={planHref}
            />
          ))}
        </ul>
        <div className="mt-3 flex flex-wrap items-center gap-2">
          {!isAsRead(plan, standing) && (
            <Button look="main" onClick={set}>
              {others.length > 0 || standing.at === 0 ? "Set the plan to how the box is" : "Go on from there"}
            </Button>
          )}
          <Button onClick={onAgain}>Read it again</Button>
          <Link href={planHref} className={LINK}>
            {plan.steps.length > 0 ? "To the next step" : "See the box in the plan"}
          </Link>
        </div>
      </section>
      <section aria-label="The box as it was read">
        <BoxShown
          recognised={recognised}
          answers={answers}
          onAnswer={(question, answer) => setAnswers({ ...answers, [question]: answer })}
        />
      </section>
    </div>
  );
}

/** Whether the plan begins with exactly what was read, so that there is nothing to set. */
const isAsRead = (plan: Plan, { recognised, at }: Standing): boolean =>
  at === 0 &&
  JSON.stringify([plan.drives, plan.pools, plan.steps, plan.box]) ===
    JSON.stringify([recognised.plan.drives, recognised.plan.pools, recognised.plan.steps, recognised.plan.box]);

/** The first words: whether the box is where the plan has it. */
function verdictOf({ at, differences, running }: Standing, plan: Plan): string {
  const others = differences.filter(({ code }) => code !== "array-running").length;
  if (others > 0) return `${counted(others, "thing is", "things are")} not as planned.`;
  if (running) return "A step of the plan is under way, and all else is as planned.";
  if (at > 0) return `As planned, after step ${at} of ${plan.steps.length}.`;
  const gone = goneIn(plan);
  const isLacking = plan.pools.some(({ groups }) => groups.some(({ drives }) => drives.some((id) => gone.has(id))));
  return isLacking ? "The plan has the box as it is." : "The box is as planned.";
}

/** Whether the data is safe, pool by pool, where a drive is gone. */
function Safety({ recognised: { plan }, planHref }: Pick<Standing, "recognised"> & { planHref: string | null }) {
  const [unit] = useUnit();
  const { pools } = useMemo(() => predict(plan, unit), [plan, unit]);
  return pools
    .filter(({ condition }) => condition.state !== "whole")
    .map((pool) => (
      <p key={pool.id} className="mt-1 text-geranium">
        {pool.name}: {conditionWords(pool.condition, pool.tolerance)}.{" "}
        {planHref !== null && (
          <Link href={`${planHref}/rescue?pool=${pool.id}`} className={LINK}>
            What to do now
          </Link>
        )}
      </p>
    ));
}

/** The step that is under way, with when it will have ended. */
function Running({ standing, plan, at, act, planHref }: PlaceProps & { standing: Standing; at: string }) {
  const [unit] = useUnit();
  const { running, recognised } = standing;
  const does = useMemo(() => {
    if (!running) return null;
    const moments = walkPlan(recognised.plan, unit).moments;
    return moments.find((moment) => moment.walked?.step.id === running.step.id)?.walked?.does ?? null;
  }, [running, recognised, unit]);
  if (!running) return null;
  const ends = (hours: number) => momentWords(Date.parse(at) + hours * 3_600_000, zoneOf(plan));
  const { left } = running;
  const isUnderWay = plan.underWay?.some(({ step }) => step === running.step.id);
  return (
    <p className="mt-1">
      {does ? `${does} ` : ""}It will have ended about {ends(left.expected)}: {hoursWords(left)} from when it was read,
      between {ends(left.low)} and {ends(left.high)}.{" "}
      {isUnderWay ? (
        <Button
          small
          onClick={() => act({ kind: "take-progress", step: running.step.id, at, share: running.share }, true)}
        >
          Note how far it is
        </Button>
      ) : (
        <Link href={`${planHref}/carry`} className={LINK}>
          Carry out
        </Link>
      )}
    </p>
  );
}

function DifferenceRow({
  difference: { message, means, mend, leadsToRescue },
  act,
  planHref,
}: { difference: Difference } & Pick<PlaceProps, "act" | "planHref">) {
  return (
    <li className="flex flex-wrap items-start gap-x-4 gap-y-1 py-2">
      <p className="min-w-0 flex-1 basis-72">
        {message} <span className="text-soft">{means}</span>
      </p>
      <span className="flex flex-wrap items-center gap-3">
        {mend && (
          <Button small onClick={() => act(mend.command, true)}>
            {mend.label}
          </Button>
        )}
        {leadsToRescue && (
          <Link href={`${planHref}/rescue`} className={LINK}>
            What to do now
          </Link>
        )}
      </span>
    </li>
  );
}
