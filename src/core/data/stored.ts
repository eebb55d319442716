import type { Bytes } from "../bytes/bytes";
import type { DataSet, Plan, Volume } from "../document/plan";
import { sizeAfter } from "./dataSet";

/** The data sets of a volume. */
export const dataSetsOn = (plan: Pick<Plan, "dataSets">, volume: string): DataSet[] =>
  (plan.dataSets ?? []).filter((set) => set.volume === volume);

/** The data sets of a pool. */
export const dataSetsIn = (plan: Plan, pool: string): DataSet[] =>
  plan.pools.find((each) => each.id === pool)?.volumes.flatMap((volume) => dataSetsOn(plan, volume.id)) ?? [];

/**
 * What is stored on a volume after some days: its data sets, each as it grows, and whatever else it holds, which stays.
 *
 * @param days from today on
 * @returns bytes; 0 where nothing is known
 * @example storedAfter(plan, volume, 30) // today's and a month's growth
 */
export function storedAfter(plan: Pick<Plan, "dataSets">, volume: Volume, days: number): Bytes {
  const sets = dataSetsOn(plan, volume.id);
  const today = sets.reduce((sum, set) => sum + set.bytes, 0);
  const others = Math.max(0, (volume.usedBytes ?? 0) - today);
  return others + sets.reduce((sum, set) => sum + sizeAfter(set, days), 0);
}
