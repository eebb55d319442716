import type { Bytes } from "../bytes/bytes";
import { isFree } from "../box/members";
import type { Backup, DataSet, Drive, Plan, Volume } from "../document/plan";
import { isOnGone } from "./backup";
import { sizeAfter } from "./dataSet";

/** The data sets of a volume. */
export const dataSetsOn = (plan: Pick<Plan, "dataSets">, volume: string): DataSet[] =>
  (plan.dataSets ?? []).filter((set) => set.volume === volume);

/** The data sets on a drive that is in no pool, or was when they were entered. */
export const dataSetsOnDrive = (plan: Pick<Plan, "dataSets">, drive: string): DataSet[] =>
  (plan.dataSets ?? []).filter((set) => set.drive === drive);

/** What is known to be stored on such a drive today, in bytes. */
export const storedOnDrive = (plan: Pick<Plan, "dataSets">, drive: string): Bytes =>
  dataSetsOnDrive(plan, drive).reduce((sum, set) => sum + set.bytes, 0);

/** The drives of a plan that hold data outside its pools, or of which a data set says so. */
export const drivesWithData = (plan: Plan): Drive[] =>
  plan.drives.filter(
    (drive) =>
      (isFree(plan, drive.id) && (drive.contents?.kind === "data" || drive.contents?.kind === "mounted")) ||
      dataSetsOnDrive(plan, drive.id).length > 0,
  );

/** The data sets of a pool. */
export const dataSetsIn = (plan: Plan, pool: string): DataSet[] =>
  plan.pools.find((each) => each.id === pool)?.volumes.flatMap((volume) => dataSetsOn(plan, volume.id)) ?? [];

/**
 * The backups that hold data of a pool and can be reached, the newest first; whether they have been tested is another
 * question.
 *
 * @example backupsOf(plan, "p1").map(({ name }) => name) // ["Box at home"]
 */
export function backupsOf(plan: Plan, pool: string): Backup[] {
  const sets = new Set(dataSetsIn(plan, pool).map(({ id }) => id));
  return (plan.backups ?? [])
    .filter((backup) => backup.dataSets.some((set) => sets.has(set)) && !isOnGone(backup, plan))
    .sort((a, b) => a.everyDays - b.everyDays);
}

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
