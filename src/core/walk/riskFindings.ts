import { survivesMeanwhile } from "../words/survives";
import type { BoxState } from "../box/state";
import { driveOf } from "../box/find";
import { goneIn } from "../box/gone";
import { nameOfDriveFirst } from "../drives/nameOfDrive";
import { preciousFindings, preciousOnDrive } from "../data/precious";
import type { Step } from "../document/plan";
import { type Finding } from "../findings/finding";
import { moduleOf } from "../steps/registry";
import { type StepCost, type StepSetting } from "../steps/stepModule";
import type { Exposure } from "./moment";

/**
 * What the step risks of precious data: a rewrite of all that a pool stores, hours without redundancy, or the erasing
 * of a drive that holds it.
 */
export function riskFindings(
  state: BoxState,
  step: Step,
  cost: StepCost,
  exposure: readonly Exposure[],
  { day, family }: StepSetting,
): Finding[] {
  const erased = cost.erased.flatMap((id) => {
    const drive = driveOf(state.plan, id);
    return drive?.contents ? preciousOnDrive(state.plan, step, id, nameOfDriveFirst(drive, family), day) : [];
  });
  const inPools = state.plan.pools.flatMap((pool) => {
    if (state.backedUp.has(pool.id)) return [];
    const members = pool.groups.flatMap((group) => group.drives);
    const rewrites =
      moduleOf(step).rewrites === true && cost.work.some(({ drive, writes }) => writes > 0 && members.includes(drive));
    // What fills a drive in the place of one that is gone takes no protection away: it brings it back.
    const gone = goneIn(state.plan);
    const bare =
      cost.missing.some((id) => !gone.has(id)) &&
      exposure.some((each) => each.pool === pool.id && each.redundancy <= 0);
    if (!rewrites && !bare) return [];
    return preciousFindings(
      state.plan,
      step,
      pool.id,
      rewrites
        ? `This rewrites all that is stored on ${pool.name || "the pool"}`
        : `While this runs, ${survivesMeanwhile(0)}`,
      day,
    );
  });
  return [...erased, ...inPools];
}
