import type { Bytes } from "../bytes/bytes";
import { DAYS_OF_MONTH } from "../data/dataSet";
import { storedAfter } from "../data/stored";
import type { Plan } from "../document/plan";

/**
 * What a pool's volumes store by the end of each month, its data sets as they grow: what must be there when a month
 * begins must last until it ends.
 *
 * @returns bytes of files by month; all 0 where nothing is known to be stored
 * @example demandOf(clinic, "p1", 12)[11] // what is stored in a year
 */
export function demandOf(plan: Plan, pool: string, months: number): Bytes[] {
  const volumes = plan.pools.find(({ id }) => id === pool)?.volumes ?? [];
  return Array.from({ length: months }, (_, month) =>
    volumes.reduce((sum, volume) => sum + storedAfter(plan, volume, (month + 1) * DAYS_OF_MONTH), 0),
  );
}
