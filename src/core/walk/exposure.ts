import { fateOfPool, toleranceOfPool } from "../box/figures";
import { goneIn, goneOf } from "../box/gone";
import type { BoxState } from "../box/state";
import type { BoxRules, Plan, Pool } from "../document/plan";
import { leftOf } from "../failures/condition";
import type { StepCost, StepSetting } from "../steps/stepModule";
import type { Exposure } from "./moment";

/** A pool with a group that is being filled: the loss of any of that group's drives loses the pool. */
function exposureOfFilling(before: BoxState, after: BoxState, group: string, rules: BoxRules): Exposure[] {
  const pool = after.plan.pools.find((each) => each.groups.some(({ id }) => id === group));
  if (!pool) return [];
  const was = before.plan.pools.find(({ id }) => id === pool.id);
  const usual = was ? toleranceOfPool(before.plan, was, rules) : toleranceOfPool(after.plan, pool, rules);
  return usual > 0 ? [{ pool: pool.id, redundancy: 0, usual }] : [];
}

/** How many more drives a pool can lose, whichever, without the drives that are gone and some others. */
const leftWithout = (plan: Plan, pool: Pool, rules: BoxRules, without: readonly string[]): number =>
  goneIn(plan).size === 0 && without.length === 0
    ? toleranceOfPool(plan, pool, rules)
    : leftOf(fateOfPool(plan, pool, rules, without));

/** The same of one pool while a step works on it, or on another. */
function exposureOfPool(
  pool: Pool,
  before: BoxState,
  after: BoxState,
  cost: StepCost,
  { rules, unready = [] }: StepSetting,
): Exposure[] {
  const usual = toleranceOfPool(before.plan, pool, rules);
  const members = new Set(pool.groups.flatMap((group) => group.drives));
  const without = [...cost.missing, ...unready].filter((drive) => members.has(drive));
  const then = after.plan.pools.find((each) => each.id === pool.id);
  const isRewritten = without.length === 0 && cost.work.some(({ drive }) => members.has(drive));
  const left = leftWithout(before.plan, pool, rules, without);
  // While stripes are rewritten the weaker of the two shapes counts.
  const redundancy = isRewritten && then ? Math.min(left, leftWithout(after.plan, then, rules, [])) : left;
  if (redundancy >= usual && without.length === 0) return [];
  const share = unready.length === 0 && !isRewritten ? cost.missingShare : undefined;
  return [{ pool: pool.id, redundancy, usual, ...(share === undefined ? {} : { share }) }];
}

/**
 * Redundancy while a step runs: that of the bands before it without the drives that are gone, or missing meanwhile;
 * none while a new group is filled, or while a backup is the only copy.
 */
export function exposureOf(before: BoxState, after: BoxState, cost: StepCost, setting: StepSetting): Exposure[] {
  const { rules } = setting;
  const filled = cost.filling === undefined ? [] : exposureOfFilling(before, after, cost.filling, rules);
  const filling = after.plan.pools.find((each) => each.groups.some(({ id }) => id === cost.filling))?.id;
  return before.plan.pools
    .flatMap((pool) => {
      if (pool.id === cost.onlyInBackup)
        return [{ pool: pool.id, redundancy: 0, usual: toleranceOfPool(before.plan, pool, rules) }];
      if (cost.onlyInBackup !== undefined && goneOf(before.plan, pool).length === 0) return [];
      if (cost.filling === undefined) return exposureOfPool(pool, before, after, cost, setting);
      return pool.id === filling || goneOf(before.plan, pool).length === 0
        ? []
        : exposureOfPool(pool, before, after, { ...cost, missing: [], work: [] }, setting);
    })
    .concat(cost.onlyInBackup === undefined ? filled : []);
}
