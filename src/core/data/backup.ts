import type { Bytes } from "../bytes/bytes";
import type { Backup, DataSet, Plan } from "../document/plan";
import { daysBetween } from "../time/days";
import { sizeAfter } from "./dataSet";
import { firstDay } from "./firstDay";

/** A copy that was found whole no longer ago than this counts as current. */
export const CURRENT_DAYS = 35;

/** Why a backup cannot be counted on, or null where it can. */
export type BackupTrouble = "never-verified" | "verified-long-ago" | "does-not-fit" | null;

const isTooSmall = (backup: Backup, dataSets: readonly DataSet[], days: number): boolean =>
  backup.bytes !== undefined && bytesOn(backup, dataSets, days) > backup.bytes;

function ageTrouble({ lastVerified }: Backup, day: string | null): BackupTrouble {
  if (lastVerified === undefined) return "never-verified";
  // What is dated after the day in question is a slip of the hand, and no proof.
  const isOff = day !== null && (daysBetween(lastVerified, day) > CURRENT_DAYS || daysBetween(day, lastVerified) > 1);
  return isOff ? "verified-long-ago" : null;
}

/**
 * Whether a backup can be counted on at a day: it was found whole within the last 35 days, and its data sets fit.
 *
 * @param day as YYYY-MM-DD; without one the age is not judged
 * @param days how many days after today, for the sizes of the data sets
 * @example troubleOf({ lastVerified: "2026-09-01", … }, sets, "2026-11-23") // "verified-long-ago"
 */
export const troubleOf = (backup: Backup, dataSets: readonly DataSet[], day: string | null, days = 0): BackupTrouble =>
  isTooSmall(backup, dataSets, days) ? "does-not-fit" : ageTrouble(backup, day);

/** The same without the reason. The age comes first: it costs little, and this is asked of all backups at each step. */
const isCurrent = (backup: Backup, dataSets: readonly DataSet[], day: string | null): boolean =>
  ageTrouble(backup, day) === null && !isTooSmall(backup, dataSets, 0);

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
export function currentBackups(plan: Pick<Plan, "backups" | "dataSets">, set: DataSet, day: string | null): Backup[] {
  return (plan.backups ?? []).filter(
    (backup) => backup.dataSets.includes(set.id) && isCurrent(backup, plan.dataSets ?? [], day),
  );
}

/**
 * The data sets that no backup holds that can be counted on.
 *
 * @param among those that are asked about
 * @example notBackedUp(plan, dataSetsIn(plan, "p1"), "2026-11-23").map((set) => set.name) // ["X-rays"]
 */
export function notBackedUp(
  plan: Pick<Plan, "backups" | "dataSets">,
  among: readonly DataSet[],
  day: string | null,
): DataSet[] {
  // Each backup is judged once, and not for every data set: there may be many of both, at every step.
  const sound = (plan.backups ?? []).filter((backup) => isCurrent(backup, plan.dataSets ?? [], day));
  const held = new Set(sound.flatMap((backup) => backup.dataSets));
  return among.filter((set) => !held.has(set.id));
}
