"use client";

import "@/core/commands/chanceCommands";
import "@/core/commands/dataCommands";
import Link from "next/link";
import { useMemo, useState } from "react";
import { causeWords, chanceWords, ofBoxes, rangeWords } from "@/core/chance/chanceWords";
import type { PoolAtRest } from "@/core/chance/atRest";
import type { Ranged } from "@/core/chance/figures";
import type { ChancesSoFar } from "@/core/chance/planChances";
import { CAUSES } from "@/core/chance/otherCauses";
import type { Command } from "@/core/document/command";
import type { Plan } from "@/core/document/plan";
import type { Walk } from "@/core/walk/moment";
import { walkPlan } from "@/core/walk/walkPlan";
import { Button } from "../kit/Button";
import { OneOf } from "../kit/OneOf";
import { Segmented } from "../kit/Segmented";
import { PrintButton } from "../kit/PrintButton";
import { useUnit } from "../preferences/preferences";
import { today } from "../today";
import { AlongSteps } from "./AlongSteps";
import { ChanceRows } from "./ChanceRows";
import { Helps } from "./Helps";
import { InputsTable } from "./InputsTable";
import { Sensitivity } from "./Sensitivity";
import { useChances } from "./useChances";
import { YearsChart } from "./YearsChart";

interface Props {
  plan: Plan;
  act: (command: Command, offersUndo?: boolean) => string | null;
  planHref: string;
}

/** How likely something is lost, by what, what moves it, and what lowers it most. */
export function ChanceView({ plan, act, planHref }: Props) {
  return (
    <main id="main" className="min-w-0 flex-1 overflow-y-auto px-4 py-4 md:px-6" tabIndex={-1}>
      <div className="flex flex-wrap items-baseline justify-between gap-2">
        <h1 className="font-serif text-2xl">Chance of loss</h1>
        <PrintButton />
      </div>
      {plan.pools.length === 0 ? (
        <p className="mt-3 text-soft">
          There is no pool yet whose chance of loss could be worked out. Make one on the{" "}
          <Link className="inline-block min-h-[24px] underline" href={planHref}>
            workbench
          </Link>
          .
        </p>
      ) : (
        <Sections plan={plan} act={act} planHref={planHref} />
      )}
    </main>
  );
}

function Sections({ plan, act, planHref }: Props) {
  const [unit] = useUnit();
  const walked = useMemo(() => walkPlan(plan, unit, undefined, today()), [plan, unit]);
  const last = walked.moments.length - 1;
  // What is being typed has its effect at once; the plan keeps it when the field is left.
  const [typed, setTyped] = useState<{ of: Plan; plan: Plan } | null>(null);
  const tried = typed?.of === plan ? typed.plan : plan;
  const { told, isOld, share, trouble, again } = useChances(tried, last > 0 ? `0,${last}` : "0");
  if (trouble)
    return (
      <p role="alert" className="mt-3 flex flex-wrap items-center gap-3 text-geranium">
        {trouble}
        <Button small onClick={again}>
          Try again
        </Button>
      </p>
    );
  return (
    <>
      {told ? (
        <div className={isOld ? "text-soft" : ""} aria-busy={isOld || share !== null}>
          <Told told={told} share={share} plan={plan} act={act} planHref={planHref} walked={walked} />
        </div>
      ) : (
        <p className="mt-3 text-soft">Working out the chances …</p>
      )}
      <InputsTable
        plan={plan}
        act={act}
        onTyped={(chance) => setTyped(chance ? { of: plan, plan: { ...plan, chance } } : null)}
      />
      <p className="mt-6 max-w-[46rem] text-soft">
        Not in these figures: the wrong drive pulled (
        <Link className="inline-block min-h-[24px] underline" href={`${planHref}/rehearse`}>
          Rehearse
        </Link>{" "}
        shows that), faults of controllers and of the box’s own software, and backups that fail together. What is told
        apart: {CAUSES.map(causeWords).join("; ")}.
      </p>
    </>
  );
}

interface ToldProps extends Props {
  told: ChancesSoFar;
  share: number | null;
  walked: Walk;
}

/** The chances of one pool, now or after the plan, and those of the plan. */
function Told({ told, share, plan, act, planHref, walked }: ToldProps) {
  const [when, setWhen] = useState<"now" | "after">("now");
  const [chosen, setChosen] = useState<string | null>(null);
  const hasSteps = told.expected.moments.length > 1;
  const at = when === "after" && hasSteps ? 1 : 0;
  const { pools, index, pool, ranged } = poolIn(told, at, chosen);
  const shown = walked.moments.at(at === 1 ? -1 : 0)?.state.plan ?? plan;
  return (
    <>
      {pool && <Headline pool={pool} ranged={ranged} told={told} hasSteps={hasSteps} />}
      <p className="mt-1 max-w-[46rem] text-soft">
        This is about boxes like yours, not about yours.{" "}
        {share !== null && <span>Working out the ranges: {Math.round(share * 100)} %</span>}
      </p>
      <div className="mt-3 flex flex-wrap gap-3">
        {hasSteps && <Segmented label="When" value={when} options={WHEN} onChange={setWhen} />}
        {pools.length > 1 && (
          <OneOf
            label="Pool"
            value={pool?.id ?? ""}
            options={pools.map(({ id }) => ({ value: id, label: shown.pools.find((of) => of.id === id)?.name || id }))}
            onChange={setChosen}
          />
        )}
      </div>
      <div className="mt-3 grid gap-x-8 gap-y-6 xl:grid-cols-[minmax(0,1.35fr)_minmax(0,1fr)]">
        <div className="min-w-0 space-y-6">
          {pool && <ChanceRows pool={pool} ranged={ranged} plan={plan} />}
          {hasSteps && <AlongSteps told={told} walked={walked} />}
          <Helps plan={plan} act={act} planHref={planHref} walked={walked} />
        </div>
        <div className="min-w-0 space-y-6">
          {pool && <YearsChart pool={pool} ranged={ranged} />}
          <Sensitivity told={told} at={at} pool={index} hasSteps={hasSteps} />
        </div>
      </div>
    </>
  );
}

/** The pool that was chosen at a moment, or the first. */
function poolIn({ expected, ranged }: ChancesSoFar, at: number, chosen: string | null) {
  const pools = expected.moments[at]?.pools ?? [];
  const index = Math.max(
    0,
    pools.findIndex(({ id }) => id === chosen),
  );
  return { pools, index, pool: pools[index], ranged: ranged?.moments[at]?.pools[index] ?? null };
}

const WHEN = [
  { value: "now", label: "Now" },
  { value: "after", label: "After the plan" },
] as const;

interface HeadlineProps {
  pool: PoolAtRest;
  ranged: Ranged<PoolAtRest> | null;
  told: ChancesSoFar;
  hasSteps: boolean;
}

/** The two chances in a sentence each. */
function Headline({ pool, ranged, told, hasSteps }: HeadlineProps) {
  return (
    <p className="mt-1 max-w-[46rem] font-serif text-lg">
      About {ofBoxes(pool.year.any)} such boxes lose something by their drives in a year
      {ranged ? `; ${rangeWords(ranged.year.any)}.` : "."}{" "}
      {hasSteps && (
        <>
          Of boxes that go through this plan about {chanceWords(told.ranged?.along.any ?? told.expected.along.any)} lose
          something on the way.
        </>
      )}
    </p>
  );
}
