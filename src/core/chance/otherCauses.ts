import type { Backup, DataSet, Plan } from "../document/plan";
import { troubleOf } from "../data/backup";
import { type Chance, ended } from "./chance";
import type { Point, Spread } from "./inputs";

/** What may cost data, each by itself. */
export const CAUSES = ["waiting", "rebuilding", "sector", "power-cut", "theft", "deletion"] as const;

export type Cause = (typeof CAUSES)[number];

/** How likely data is lost, of 1, by cause. */
export type ByCause = Record<Cause, number>;

export const NO_CAUSE: Readonly<ByCause> = {
  waiting: 0,
  rebuilding: 0,
  sector: 0,
  "power-cut": 0,
  theft: 0,
  deletion: 0,
};

/** How much of what a theft or a fire takes a copy in the same building saves. */
const SAVED_HERE = 0.1;

/** What a backup is worth: how likely it brings data back, by what had cost it. */
export interface BackupWorth {
  backup: string;
  /** What of the newest work is lost all the same: that of so many days at most. */
  days: number;
  drives: number;
  theft: number;
  deletion: number;
}

/**
 * A deletion is found before the next copy overwrites what was deleted: the copy comes at any time within its interval,
 * and a deletion is noticed after so many days in the mean.
 */
function foundInTime(days: number, noticed: number): number {
  const x = days / Math.max(noticed, 1e-9);
  return 1 + Math.expm1(-x) / x;
}

/**
 * The data sets by which it is judged what backups bring back: those whose owner would miss them, unless nobody would
 * miss any.
 */
export function missed(sets: readonly DataSet[]): readonly DataSet[] {
  const kept = sets.filter(({ worth }) => worth !== "replaceable");
  return kept.length > 0 ? kept : sets;
}

/**
 * What the backups of a data set are worth.
 *
 * @param day as YYYY-MM-DD, by which it is judged whether they were tested of late; null leaves their age out
 * @example worthOf(plan, set, "2026-11-23", pointOf({}))[0].drives // 0.97 of one that was tested
 */
export function worthOf(
  plan: Pick<Plan, "backups" | "dataSets" | "drives">,
  set: Pick<DataSet, "id">,
  day: string | null,
  point: Point,
): BackupWorth[] {
  return (plan.backups ?? []).flatMap((backup) => {
    if (!backup.dataSets.includes(set.id)) return [];
    const trouble = troubleOf(backup, plan, day);
    if (trouble === "drive-gone" || trouble === "does-not-fit") return [];
    return [worthOfBackup(backup, trouble === null ? point.restoreFailsTested : point.restoreFailsUntested, point)];
  });
}

function worthOfBackup({ id, everyDays, place, keepsVersions }: Backup, fails: number, point: Point): BackupWorth {
  return {
    backup: id,
    days: everyDays,
    drives: 1 - fails,
    theft: (1 - fails) * (place === "elsewhere" ? 1 : SAVED_HERE),
    deletion: (1 - fails) * (keepsVersions ? 1 : foundInTime(everyDays, point.daysUntilDeletionNoticed)),
  };
}

/** What is lost for good of what each cause takes here: it comes so much less often that no backup brings it back. */
export function withBackups(causes: ByCause, backups: readonly BackupWorth[]): ByCause {
  const left = (of: "drives" | "theft" | "deletion") => backups.reduce((share, each) => share * (1 - each[of]), 1);
  const drives = left("drives");
  return {
    waiting: thinned(causes.waiting, drives),
    rebuilding: thinned(causes.rebuilding, drives),
    sector: thinned(causes.sector, drives),
    "power-cut": thinned(causes["power-cut"], drives),
    theft: thinned(causes.theft, left("theft")),
    deletion: thinned(causes.deletion, left("deletion")),
  };
}

/** The chance of what comes only so often as a share of its hazard. */
const thinned = (chance: number, share: number): number =>
  chance >= 1 ? share : -Math.expm1(Math.log1p(-chance) * share);

/**
 * All that may cost data in so many years at rest: drives, theft or fire, and deletions by mistake.
 *
 * @example allCauses(chance, 1, pointOf({})).deletion // 0.095
 */
export const allCauses = ({ waiting, rebuilding, sector }: Chance, years: number, point: Point): ByCause => ({
  ...NO_CAUSE,
  waiting,
  rebuilding,
  sector,
  theft: -Math.expm1(-point.theftOrFire * years),
  deletion: -Math.expm1(-point.deletion * years),
});

/** That something is lost by any cause; each comes by itself. */
export const anyCause = ({ waiting, rebuilding, sector, ...others }: ByCause): number =>
  // Drives and sectors end one another: they exclude each other already.
  1 - (1 - ended({ waiting, rebuilding, sector })) * Object.values(others).reduce((left, each) => left * (1 - each), 1);

/** The causes that lie with drives and steps; the others are no matter of the layout. */
export const OF_DRIVES: readonly Cause[] = ["waiting", "rebuilding", "sector", "power-cut"];

const expectedOf = (chance: number | Spread): number => (typeof chance === "number" ? chance : chance.expected);

/**
 * The cause that takes most, as expected; null where none does.
 *
 * @param among those that are asked about
 * @example mostly({ ...NO_CAUSE, sector: 0.002, deletion: 0.1 }, OF_DRIVES) // "sector"
 */
export function mostly(causes: Readonly<Record<Cause, number | Spread>>, among: readonly Cause[]): Cause | null {
  const most = among.reduce<Cause | null>(
    (best, cause) => (best !== null && expectedOf(causes[best]) >= expectedOf(causes[cause]) ? best : cause),
    null,
  );
  return most !== null && expectedOf(causes[most]) > 0 ? most : null;
}
