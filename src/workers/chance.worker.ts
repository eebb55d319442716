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
   * The chances of a plan at some of its moments and along its steps: told once without ranges, then how far those are,
   * and in the end with them.
   */
  follow: (
    plan: Plan,
    moments: readonly number[],
    day: string,
    onTold: (told: ChancesSoFar) => void,
    onShare: (share: number) => void,
  ): void => {
    let told = 0;
    for (const soFar of chancesOfPlan(prepareChances(walkPlan(plan, "TB", undefined, day), moments))) {
      if (soFar.share === 0 || soFar.ranged) onTold(soFar);
      else if (performance.now() - told > TELLS_EVERY) onShare(soFar.share);
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
