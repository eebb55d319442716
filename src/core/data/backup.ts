import type { Bytes } from "../bytes/bytes";
import type { Backup, DataSet, Plan } from "../document/plan";
import { daysBetween } from "../time/days";
import { sizeAfter } from "./dataSet";
import { firstDay } from "./firstDay";

/** A copy that was found whole no longer ago than this counts as current. */
export const CURRENT_DAYS = 35;

/** Why a backup cannot be counted on, or null where it can. */
export type BackupTrouble = "never-verified" | "verified-long-ago" | "does-not-fit" | null;

/**
 * Whether a backup can be counted on at a day: it was found whole within the last 35 days, and its data sets fit.
 *
 * @param day as YYYY-MM-DD; without one the age is not judged
 * @param days how many days after today, for the sizes of the data sets
 * @example troubleOf({ lastVerified: "2026-09-01", … }, sets, "2026-11-23") // "verified-long-ago"
 */
export function troubleOf(backup: Backup, dataSets: readonly DataSet[], day: string | null, days = 0): BackupTrouble {
  if (backup.bytes !== undefined && bytesOn(backup, dataSets, days) > backup.bytes) return "does-not-fit";
  if (backup.lastVerified === undefined) return "never-verified";
  // What is dated after the day in question is a slip of the hand, and no proof.
  if (
    day !== null &&
    (daysBetween(backup.lastVerified, day) > CURRENT_DAYS || daysBetween(day, backup.lastVerified) > 1)
  )
    return "verified-long-ago";
  return null;
}

/** What the data sets of a backup come to, with what older states of them take, in bytes. */
export function bytesOn(
  backup: Pick<Backup, "dataSets" | "keepsVersions" | "versionsShare">,
  dataSets: readonly DataSet[],
  days = 0,
): Bytes {
  const held = dataSets.filter((set) => backup.dataSets.includes(set.id));
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
    (backup) => backup.dataSets.includes(set.id) && troubleOf(backup, plan.dataSets ?? [], day) === null,
  );
}
