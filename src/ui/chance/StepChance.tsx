"use client";

import Link from "next/link";
import { causeWords, chanceWords, LEAST_TOLD } from "@/core/chance/chanceWords";
import { mostly, OF_DRIVES } from "@/core/chance/otherCauses";
import type { Plan } from "@/core/document/plan";
import { useChances } from "./useChances";

/** How likely a step of the plan costs something while it runs; nothing for one that hardly can. */
export function StepChance({ plan, step, planHref }: { plan: Plan; step: string; planHref: string }) {
  const { told, isOld } = useChances(plan, "");
  const index = told?.expected.along.steps.findIndex((each) => each.step === step) ?? -1;
  const found = told?.expected.along.steps[index];
  if (!found || found.any < LEAST_TOLD) return null;
  const most = mostly(found.causes, OF_DRIVES);
  return (
    <p className={`mt-1 ${isOld ? "text-soft" : ""}`}>
      Of such boxes {chanceWords(told?.ranged?.along.steps[index]?.any ?? found.any)} lose something while it runs
      {most && `, mostly since ${causeWords(most)}`}.{" "}
      <Link className="inline-block min-h-[24px] underline" href={`${planHref}/chance`}>
        Chance of loss
      </Link>
    </p>
  );
}
