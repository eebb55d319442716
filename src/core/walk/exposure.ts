import { bandsOfPool, toleranceOfPool } from "../box/figures";
import type { BoxState } from "../box/state";
import type { BoxRules } from "../document/plan";
import { fateOf } from "../failures/fate";
import { type StepCost } from "../steps/stepModule";
import type { Exposure } from "./moment";

/** Redundancy while a step runs: that of the bands before it without the drives that are missing meanwhile. */
export function exposureOf(before: BoxState, after: BoxState, cost: StepCost, rules: BoxRules): Exposure[] {
  return before.plan.pools.flatMap((pool) => {
    const usual = toleranceOfPool(before.plan, pool, rules);
    const missing = cost.missing.filter((drive) => pool.groups.some((group) => group.drives.includes(drive)));
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
