import type { Bytes } from "../bytes/bytes";
import type { Plan, Volume } from "../document/plan";
import { DEFAULT_HEADROOM } from "../ledger/volumes";
import { DAYS_OF_YEAR } from "./dataSet";
import { storedAfter } from "./stored";

/** As far as is looked ahead. */
export const FARTHEST_DAYS = Math.round(50 * DAYS_OF_YEAR);

/**
 * After how many whole days a volume is full: more is stored than its file system has without the head-room that the
 * owner wants to keep.
 *
 * @param capacity what folders see of it, in bytes
 * @param since days before which is not looked
 * @returns days from today, or null if not within 50 years
 * @example fullAfter(plan, volume, 10e12) // 0 for one that is full already
 */
export function fullAfter(plan: Pick<Plan, "dataSets">, volume: Volume, capacity: Bytes, since = 0): number | null {
  const limit = capacity * (1 - (volume.headroomShare ?? DEFAULT_HEADROOM));
  const isFull = (days: number) => storedAfter(plan, volume, days) > limit;
  if (isFull(since)) return since;
  if (!isFull(FARTHEST_DAYS)) return null;
  // What is stored never falls, so halving finds the first day.
  let [before, full] = [Math.floor(since), FARTHEST_DAYS];
  while (full - before > 1) {
    const middle = Math.floor((before + full) / 2);
    if (isFull(middle)) full = middle;
    else before = middle;
  }
  return full;
}
