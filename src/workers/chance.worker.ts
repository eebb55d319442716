import { expose } from "comlink";
import { chancesOfPlan, type ChancesSoFar, prepareChances } from "@/core/chance/planChances";
import type { Plan, PlanCalendar } from "@/core/document/plan";
import type { ProposalSetting } from "@/core/mends/proposals";
import { whatHelps, type WhatHelps } from "@/core/mends/whatHelps";
import { walkPlan } from "@/core/walk/walkPlan";

/** How often it is told how far the ranges are, in milliseconds. */
const TELLS_EVERY = 250;

const work = {
  /**
   * The chances of a plan at some of its moments and along its steps: told once without ranges, then how far those are
   * (0 to 1), and in the end with them. All by one function, whose calls come in their order, and whose last one is
   * waited for.
   */
  follow: async (
    plan: Plan,
    moments: readonly number[],
    day: string,
    onTold: (told: ChancesSoFar | number) => unknown,
  ): Promise<void> => {
    let told = 0;
    for (const soFar of chancesOfPlan(prepareChances(walkPlan(plan, "TB", undefined, day), moments))) {
      if (soFar.share === 0 || soFar.ranged) await onTold(soFar);
      else if (performance.now() - told > TELLS_EVERY) void onTold(soFar.share);
      else continue;
      told = performance.now();
    }
  },
  /** What lowers them most. */
  helps: (plan: Plan, setting: ProposalSetting, calendar: PlanCalendar): WhatHelps =>
    whatHelps(plan, setting, calendar),
};

export type ChanceWork = typeof work;

expose(work);
