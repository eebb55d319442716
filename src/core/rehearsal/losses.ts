import { currentBackups } from "../data/backup";
import { bareIn } from "../data/precious";
import type { Backup, Plan } from "../document/plan";
import type { Practice } from "../simulator/practice";
import type { SimBackup } from "../simulator/simulatedBox";
import { truthOf, type VolumeTruth } from "../simulator/truth";

/** Data of a plan that is followed by itself: a data set, or a volume of which nobody says what is on it. */
export interface Stored {
  id: string;
  name: string;
  /** Its volume and the pool of that, or the drive that it is on. */
  on: { volume: string; pool: string } | { drive: string };
}

/** Data that could not be read any more on the box. */
export interface Loss {
  of: string;
  /** How much of what is stored with it, from 0 to 1. */
  share: number;
  /** The backup that has it, by its id, or in words where the plan knows no such backup; null where none has. */
  from: string | null;
  /** How many hours old it is at most, as it comes back. */
  ageHours: number | null;
}

/** A copy by hand that the advice asks for where something is in one place only. */
export const COPY_MADE_FIRST = "the copy made after the first failure";

/**
 * What is stored by a plan, each by its data set; a volume without any stands for itself.
 *
 * @example storedOf(plan).map(({ name }) => name) // ["X-rays", "Office"]
 */
export function storedOf({ pools, dataSets = [] }: Plan): Stored[] {
  const volumes = pools.flatMap((pool) => pool.volumes.map(({ id, name }) => ({ id, name, pool: pool.id })));
  const poolOf = new Map(volumes.map(({ id, pool }) => [id, pool]));
  const sets = dataSets.flatMap(({ id, name, volume, drive }): Stored[] => {
    const pool = volume === undefined ? undefined : poolOf.get(volume);
    if (volume !== undefined && pool !== undefined) return [{ id, name, on: { volume, pool } }];
    return drive === undefined ? [] : [{ id, name, on: { drive } }];
  });
  const told = new Set(dataSets.map(({ volume }) => volume));
  const bare = volumes.filter(({ id }) => !told.has(id));
  return [...sets, ...bare.map(({ id, name, pool }): Stored => ({ id, name, on: { volume: id, pool } }))];
}

/** What a loss is judged with. */
export interface LossSetting {
  plan: Plan;
  practice: Practice;
  /** As YYYY-MM-DD, for the age of backups; null leaves that out. */
  day: string | null;
  /** The hour of the loss, as far as it is known. */
  hours: number;
}

/** Whether a backup that the plan knows can be counted on for some data. */
function holds({ plan, practice, day }: LossSetting, known: Backup, set: Stored, made: number): boolean {
  const own = plan.dataSets?.find(({ id }) => id === set.id);
  if (!own || !known.dataSets.includes(own.id)) return false;
  if (practice.box.drives.some(({ id, state }) => id === known.drive && state !== "works")) return false;
  return made >= 0 || currentBackups(plan, own, day).includes(known);
}

/** Whether some data is precious and in no backup that can be counted on. */
const isBare = ({ plan, day }: LossSetting, set: Stored): boolean =>
  "volume" in set.on && bareIn(plan, set.on.pool, day).some(({ id }) => id === set.id);

/** As of which hour a backup has some data; null where it has none of it, or can not be counted on. */
function asOf(setting: LossSetting, set: Stored, backup: SimBackup): number | null {
  const { plan, practice, hours } = setting;
  const known = plan.backups?.find(({ id }) => id === backup.to);
  const deleted = "volume" in set.on ? practice.deleted.get(set.on.volume) : undefined;
  const isOfBefore = deleted === undefined || backup.keepsVersions || backup.hours < deleted;
  // A copy by hand is of what was in one place only, and of nothing else.
  if (backup.to === COPY_MADE_FIRST && !isBare(setting, set)) return null;
  if (!known) return isOfBefore ? backup.hours : null;
  if (!holds(setting, known, set, backup.hours)) return null;
  // It is made again and again: at worst the last time is as long ago as lies between two.
  const every = 24 * known.everyDays;
  if (deleted === undefined) return Math.max(backup.hours, hours - every);
  // The next one takes the place of the one that still had what was deleted.
  const isOver = !known.keepsVersions && practice.box.hours - deleted >= every;
  return isOver || !isOfBefore ? null : Math.max(Math.min(backup.hours, deleted), deleted - every);
}

/** The newest backup that has what was on a drive by itself: only those that the plan knows are of it. */
function newestOfDrive(setting: LossSetting, set: Stored): Pick<Loss, "from" | "ageHours"> {
  const { plan, practice, day } = setting;
  const own = plan.dataSets?.find(({ id }) => id === set.id);
  const isBurnt = practice.said.some(({ what }) => what === "gone");
  const [best] = (own ? currentBackups(plan, own, day) : [])
    .filter(({ place }) => !isBurnt || place === "elsewhere")
    .filter((known) => own && holds(setting, known, set, -1))
    .sort((a, b) => a.everyDays - b.everyDays);
  return best ? { from: best.id, ageHours: 24 * best.everyDays } : { from: null, ageHours: null };
}

/** The newest backup that has some data. */
function newestOf(setting: LossSetting, set: Stored, pool: string): Pick<Loss, "from" | "ageHours"> {
  let best: { from: string; at: number } | null = null;
  for (const backup of setting.practice.box.backups) {
    if (backup.pool !== pool || ("volume" in set.on && backup.lacks?.includes(set.on.volume))) continue;
    const at = asOf(setting, set, backup);
    if (at !== null && (best === null || at >= best.at)) best = { from: backup.to, at };
  }
  return best ? { from: best.from, ageHours: Math.max(0, setting.hours - best.at) } : { from: null, ageHours: null };
}

/**
 * What of the data of a practice cannot be read now: all of it read back and compared, and looked for in the backups.
 *
 * @param stored what is asked about
 * @example lossesNow({ plan, practice, day: null, hours: 12 }, storedOf(plan)) // [] where nothing is lost
 */
export function lossesNow(setting: LossSetting, stored: readonly Stored[]): Loss[] {
  const { practice } = setting;
  const truths = new Map<string, VolumeTruth>();
  for (const { volumes } of truthOf(practice)) for (const each of volumes) truths.set(each.volume, each);
  return stored.flatMap((set): Loss[] => {
    if ("drive" in set.on) {
      const { drive } = set.on;
      const is = practice.box.drives.find(({ id }) => id === drive);
      return is && is.state !== "works" ? [{ of: set.id, share: 1, ...newestOfDrive(setting, set) }] : [];
    }
    const truth = truths.get(set.on.volume);
    if (!truth || truth.lost === 0) return [];
    const share = truth.lost / Math.max(1, truth.blocks);
    return [{ of: set.id, share, ...newestOf(setting, set, set.on.pool) }];
  });
}
