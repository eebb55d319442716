import type { Bytes } from "../bytes/bytes";
import type { Plan, Volume } from "../document/plan";
import { DEFAULT_HEADROOM } from "../ledger/volumes";
import { firstDay } from "./firstDay";
import { storedAfter } from "./stored";

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
  return firstDay((days) => storedAfter(plan, volume, days) > limit, since);
}
