import type { Bytes } from "../bytes/bytes";
import type { Plan } from "../document/plan";

/**
 * What the pools of a plan hold together. A pool on which data only lands is no place to keep it, and does not count.
 *
 * @param pools as they were predicted
 * @example storageTotal(clinic, predict(clinic).pools) // what its one pool holds
 */
export function storageTotal(plan: Plan, pools: readonly { id: string; usableBytes: Bytes }[]): Bytes {
  const landing = new Set(plan.pools.flatMap((pool) => (pool.landsFor === undefined ? [] : pool.id)));
  return pools.reduce((sum, pool) => sum + (landing.has(pool.id) ? 0 : pool.usableBytes), 0);
}
