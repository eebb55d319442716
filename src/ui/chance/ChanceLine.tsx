"use client";

import Link from "next/link";
import { useMemo } from "react";
import { causeWords, ofBoxes, rangeWords } from "@/core/chance/chanceWords";
import type { Spread } from "@/core/chance/inputs";
import { mostly, OF_DRIVES } from "@/core/chance/otherCauses";
import { useWorkbench } from "../workbench/useWorkbench";
import { useChances } from "./useChances";

const range = (spread: Spread | undefined): string => (spread ? `; ${rangeWords(spread)}` : "");

/** How likely a pool loses something at the chosen moment, and how likely the plan does, in a line each. */
export function ChanceLine({ pool }: { pool: string }) {
  const { walk, rescueHref } = useWorkbench();
  return (
    <section aria-label="Chance of loss" className="text-[0.95rem]">
      <AtRest pool={pool} />
      {walk.plan.steps.length > 0 && <OnTheWay />}
      <Link className="inline-block min-h-[24px] underline" href={rescueHref.replace(/rescue$/, "chance")}>
        Chance of loss
      </Link>
    </section>
  );
}

function AtRest({ pool }: { pool: string }) {
  const { plan } = useWorkbench();
  const resting = useMemo(() => ({ ...plan, steps: [] }), [plan]);
  const { told, isOld, trouble } = useChances(resting, "0");
  const pools = told?.expected.moments[0]?.pools ?? [];
  const index = pools.findIndex(({ id }) => id === pool);
  const now = pools[index];
  if (!now) return <p className="text-soft">{trouble ?? "Working out the chance of loss …"}</p>;
  const most = mostly(now.year.causes, OF_DRIVES);
  return (
    <p className={isOld ? "text-soft" : ""}>
      About {ofBoxes(now.year.any)} such boxes lose something in a year
      {range(told?.ranged?.moments[0]?.pools[index]?.year.any)}.{" "}
      <span className="text-soft">
        The pool: {ofBoxes(now.year.poolLost)}. A file: {ofBoxes(now.year.fileDamaged)}.
        {most && ` Mostly: ${causeWords(most)}.`}
      </span>
    </p>
  );
}

function OnTheWay() {
  const { walk, at } = useWorkbench();
  const { told, isOld } = useChances(walk.plan, "");
  if (!told) return null;
  const { along } = told.expected;
  const ranges = told.ranged?.along;
  const id = walk.moments[at]?.walked?.step.id;
  const index = along.steps.findIndex(({ step }) => step === id);
  const step = along.steps[index];
  return (
    <p className={isOld ? "text-soft" : ""}>
      {step && `During this step ${ofBoxes(step.any)}${range(ranges?.steps[index]?.any)}. `}
      On the way through the plan {ofBoxes(along.any)}
      {range(ranges?.any)}.
    </p>
  );
}
