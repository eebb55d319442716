import { bandsOfPool, toleranceOfPool } from "../box/figures";
import type { BoxState } from "../box/state";
import type { BoxRules } from "../document/plan";
import { fateOf } from "../failures/fate";
import type { StepCost, StepSetting } from "../steps/stepModule";
import type { Exposure } from "./moment";

/** A pool with a group that is being filled: none of that group's drives may fail, or the pool is lost with it. */
function exposureOfFilling(before: BoxState, after: BoxState, group: string, rules: BoxRules): Exposure[] {
  const pool = after.plan.pools.find((each) => each.groups.some(({ id }) => id === group));
  if (!pool) return [];
  const was = before.plan.pools.find(({ id }) => id === pool.id);
  const usual = was ? toleranceOfPool(before.plan, was, rules) : toleranceOfPool(after.plan, pool, rules);
  return usual > 0 ? [{ pool: pool.id, redundancy: 0, usual }] : [];
}

/**
 * Redundancy while a step runs: that of the bands before it without the drives that are missing meanwhile; none while a
 * new group is filled, or while a backup is the only copy.
 */
export function exposureOf(
  before: BoxState,
  after: BoxState,
  cost: StepCost,
  { rules, unready = [] }: StepSetting,
): Exposure[] {
  if (cost.onlyInBackup !== undefined) {
    const pool = before.plan.pools.find(({ id }) => id === cost.onlyInBackup);
    return pool ? [{ pool: pool.id, redundancy: 0, usual: toleranceOfPool(before.plan, pool, rules) }] : [];
  }
  if (cost.filling !== undefined) return exposureOfFilling(before, after, cost.filling, rules);
  return before.plan.pools.flatMap((pool) => {
    const usual = toleranceOfPool(before.plan, pool, rules);
    const missing = [...cost.missing, ...unready].filter((drive) =>
      pool.groups.some((group) => group.drives.includes(drive)),
    );
    const then = after.plan.pools.find((each) => each.id === pool.id);
    if (missing.length === 0) {
      const touched = cost.work.some(({ drive }) => pool.groups.some((group) => group.drives.includes(drive)));
      if (!touched || !then) return [];
      // While stripes are rewritten the weaker of the two shapes counts.
      const redundancy = Math.min(usual, toleranceOfPool(after.plan, then, rules));
      return redundancy < usual ? [{ pool: pool.id, redundancy, usual }] : [];
    }
    const fate = fateOf(bandsOfPool(before.plan, pool, rules), new Set(missing));
    return [
      { pool: pool.id, redundancy: fate.kind === "lost" || fate.kind === "partly-lost" ? -1 : fate.redundancy, usual },
    ];
  });
}
