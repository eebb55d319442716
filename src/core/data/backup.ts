import type { Bytes } from "../bytes/bytes";
import type { Backup, DataSet, Plan } from "../document/plan";
import { isGone } from "../drives/driveState";
import { daysBetween } from "../time/days";
import { CURRENT_DAYS } from "./currentDays";
import { sizeAfter } from "./dataSet";
import { firstDay } from "./firstDay";

/** Why a backup cannot be counted on, or null where it can. */
export type BackupTrouble = "drive-gone" | "never-verified" | "verified-long-ago" | "does-not-fit" | null;

/** What of a plan says whether backups can be counted on. */
export type Backed = Pick<Plan, "backups" | "dataSets"> & Partial<Pick<Plan, "drives">>;

/**
 * Whether a backup is on a drive of the plan that has failed or is missing.
 *
 * @example isOnGone({ drive: "d9", … }, planWithD9Failed) // true
 */
export const isOnGone = ({ drive }: Backup, { drives }: Backed): boolean =>
  drive !== undefined && drives?.some((each) => each.id === drive && isGone(each)) === true;

const isTooSmall = (backup: Backup, dataSets: readonly DataSet[], days: number): boolean =>
  backup.bytes !== undefined && bytesOn(backup, dataSets, days) > backup.bytes;

function ageTrouble({ lastVerified }: Backup, day: string | null): BackupTrouble {
  if (lastVerified === undefined) return "never-verified";
  // What is dated after the day in question is a slip of the hand, and no proof.
  const isOff = day !== null && (daysBetween(lastVerified, day) > CURRENT_DAYS || daysBetween(day, lastVerified) > 1);
  return isOff ? "verified-long-ago" : null;
}

/**
 * Whether a backup can be counted on at a day: it was found whole within the last 35 days, its data sets fit, and no
 * drive of the plan that it is on is gone.
 *
 * @param day as YYYY-MM-DD; without one the age is not judged
 * @param days how many days after today, for the sizes of the data sets
 * @example troubleOf({ lastVerified: "2026-09-01", … }, plan, "2026-11-23") // "verified-long-ago"
 */
export function troubleOf(backup: Backup, plan: Backed, day: string | null, days = 0): BackupTrouble {
  if (isOnGone(backup, plan)) return "drive-gone";
  return isTooSmall(backup, plan.dataSets ?? [], days) ? "does-not-fit" : ageTrouble(backup, day);
}

/** The same without the reason. The age comes first: it costs little, and this is asked of all backups at each step. */
const isCurrent = (backup: Backup, plan: Backed, day: string | null): boolean =>
  ageTrouble(backup, day) === null && !isTooSmall(backup, plan.dataSets ?? [], 0) && !isOnGone(backup, plan);

/** What the data sets of a backup come to, with what older states of them take, in bytes. */
export function bytesOn(
  backup: Pick<Backup, "dataSets" | "keepsVersions" | "versionsShare">,
  dataSets: readonly DataSet[],
  days = 0,
): Bytes {
  const ids = new Set(backup.dataSets);
  const held = dataSets.filter((set) => ids.has(set.id));
  const bytes = held.reduce((sum, set) => sum + sizeAfter(set, days), 0);
  const versions = backup.keepsVersions ? (backup.versionsShare ?? 0) : 0;
  return Math.min(Number.MAX_SAFE_INTEGER, Math.round(bytes * (1 + versions)));
}

/**
 * After how many whole days a backup no longer holds what it backs up, as the data grows.
 *
 * @returns days from today; null where that is not within 50 years, or where room is no question
 * @example backupFullAfter(backupOf12TB, [setOf9TBThatGrowsBy1TBAMonth]) // 92
 */
export function backupFullAfter(backup: Backup, dataSets: readonly DataSet[]): number | null {
  const { bytes } = backup;
  return bytes === undefined ? null : firstDay((days) => bytesOn(backup, dataSets, days) > bytes);
}

/**
 * The backups of a data set that can be counted on.
 *
 * @example currentBackups(plan, set, "2026-11-23").length // 0 for data that is nowhere else
 */
export function currentBackups(plan: Backed, set: DataSet, day: string | null): Backup[] {
  return (plan.backups ?? []).filter((backup) => backup.dataSets.includes(set.id) && isCurrent(backup, plan, day));
}

/**
 * The data sets that no backup holds that can be counted on.
 *
 * @param among those that are asked about
 * @example notBackedUp(plan, dataSetsIn(plan, "p1"), "2026-11-23").map((set) => set.name) // ["X-rays"]
 */
export function notBackedUp(plan: Backed, among: readonly DataSet[], day: string | null): DataSet[] {
  // Each backup is judged once, and not for every data set: there may be many of both, at every step.
  const sound = (plan.backups ?? []).filter((backup) => isCurrent(backup, plan, day));
  const held = new Set(sound.flatMap((backup) => backup.dataSets));
  return among.filter((set) => !held.has(set.id));
}
