"use client";

import { chanceWords } from "@/core/chance/chanceWords";
import type { Spread } from "@/core/chance/inputs";
import type { Plan } from "@/core/document/plan";
import { useChances } from "./useChances";

/** That any of several comes about, at each end: what moves one of them moves the others too. */
const anyOf = (ranges: readonly Spread[], end: keyof Spread): number =>
  1 - ranges.reduce((sound, range) => sound * (1 - range[end]), 1);

/** How likely steps that are not planned yet cost something. */
export function TrialChance({ planned }: { planned: { plan: Plan; steps: readonly string[] } }) {
  const { told, isOld, trouble } = useChances(planned.plan, "");
  const own = new Set(planned.steps);
  const expected = told?.expected.along.steps.filter(({ step }) => own.has(step)) ?? [];
  const ranges = told?.ranged?.along.steps.flatMap(({ step, any }) => (own.has(step) ? [any] : []));
  const chance = ranges
    ? { low: anyOf(ranges, "low"), expected: anyOf(ranges, "expected"), high: anyOf(ranges, "high") }
    : 1 - expected.reduce((sound, { any }) => sound * (1 - any), 1);
  return (
    <p aria-live="polite" className={isOld ? "text-soft" : ""}>
      {told && !isOld
        ? `While these steps run, ${chanceWords(chance)} such boxes lose something; days of waiting come on top.`
        : (trouble ?? "Chance of loss …")}
    </p>
  );
}
