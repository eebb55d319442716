import type { BoxState } from "../box/state";
import { preciousFindings } from "../data/precious";
import type { Step } from "../document/plan";
import { type Finding } from "../findings/finding";
import { moduleOf } from "../steps/registry";
import { type StepCost, type StepSetting } from "../steps/stepModule";
import type { Exposure } from "./moment";

/** What the step risks of pools with precious data: a rewrite of all that is stored, or hours without redundancy. */
export function riskFindings(
  state: BoxState,
  step: Step,
  cost: StepCost,
  exposure: readonly Exposure[],
  { day }: StepSetting,
): Finding[] {
  return state.plan.pools.flatMap((pool) => {
    if (state.backedUp.has(pool.id)) return [];
    const members = pool.groups.flatMap((group) => group.drives);
    const rewrites =
      moduleOf(step).rewrites === true && cost.work.some(({ drive, writes }) => writes > 0 && members.includes(drive));
    const bare = cost.missing.length > 0 && exposure.some((each) => each.pool === pool.id && each.redundancy <= 0);
    if (!rewrites && !bare) return [];
    return preciousFindings(
      state.plan,
      step,
      pool.id,
      rewrites ? `This rewrites all that is stored on ${pool.name || "the pool"}` : "While this runs no drive may fail",
      day,
    );
  });
}
