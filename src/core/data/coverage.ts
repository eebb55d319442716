import type { Band } from "../bands/band";
import { bandsOfPool, toleranceOfPool } from "../box/figures";
import { goneIn } from "../box/gone";
import { groupOfDrive } from "../box/members";
import type { Backup, DataSet, Drive, Plan } from "../document/plan";
import { isGone } from "../drives/driveState";
import { fateOf } from "../failures/fate";
import { isSeparate } from "../layouts/isSeparate";
import { layoutOf } from "../layouts/registry";
import { rulesOf } from "../rules/ruleSets";
import { currentBackups } from "./backup";
import { dataSetsIn } from "./stored";

/** What may happen to data. */
export type Threat = "one-failure" | "two-failures" | "theft-or-fire" | "deletion";

/** The threats in the order in which they are shown. */
export const THREATS: readonly Threat[] = ["one-failure", "two-failures", "theft-or-fire", "deletion"];

/**
 * What becomes of a data set. *kept*: nothing is lost, whichever drives fail. *from-backup*: it is lost here, at least
 * for some choices of drives, and comes back from a backup. *until-next-copy*: a deletion can be taken back only until
 * the next copy is made. *partly*: lost for some choices of drives, with no backup. *since-update*: what came after the
 * last update of scheduled parity is lost. *failed-drives*: what is on the failed drives is lost, and nothing else, for
 * some choices of drives or for all. *lost*: gone.
 */
export type Outcome =
  | { kind: "kept" }
  | {
      kind: "from-backup";
      backup: string;
      /** What of the newest work is lost: that of so many days at most. */ days: number;
      /** The share of the choices of drives for which it is lost here. */ share: number;
    }
  | { kind: "until-next-copy"; backup: string; days: number }
  | { kind: "partly"; share: number }
  | { kind: "since-update" }
  | { kind: "failed-drives"; share: number }
  | { kind: "lost" };

export interface Coverage {
  dataSet: string;
  /** Empty for one that is on a drive of no pool. */
  pool: string;
  /** How many failed drives the pool survives, whichever. */
  tolerance: number;
  /** The backups that can be counted on. */
  backups: string[];
  outcomes: Record<Threat, Outcome>;
}

/** Of all sets of so many drives that a pool still has, the share that costs data. */
function shareLost(bands: readonly Band[], all: readonly string[], gone: ReadonlySet<string>, failures: 1 | 2): number {
  // Those that are gone in fact are so whatever else happens.
  const drives = all.filter((drive) => !gone.has(drive));
  const sets =
    failures === 1 ? drives.map((drive) => [drive]) : drives.flatMap((a, i) => drives.slice(i + 1).map((b) => [a, b]));
  if (sets.length === 0) return 1;
  return (
    sets.filter((set) => ["lost", "partly-lost"].includes(fateOf(bands, new Set([...gone, ...set])).kind)).length /
    sets.length
  );
}

function afterFailures(share: number, restore: Backup | undefined, kind: PoolKind): Outcome {
  if (share === 0) return { kind: kind.scheduled ? "since-update" : "kept" };
  if (restore) return { kind: "from-backup", backup: restore.id, days: restore.everyDays, share };
  if (kind.independent) return { kind: "failed-drives", share };
  return share < 1 ? { kind: "partly", share } : { kind: "lost" };
}

/** What of a pool decides what is left of its data. */
interface PoolKind {
  /** Parity is brought up to date by schedule. */
  scheduled: boolean;
  /** Each drive has a file system of its own. */
  independent: boolean;
}

function coverageOf(
  plan: Plan,
  pool: string,
  set: DataSet,
  lost: { one: number; two: number; tolerance: number; kind: PoolKind },
  day: string | null,
): Coverage {
  const backups = currentBackups(plan, set, day);
  const byAge = [...backups].sort((a, b) => a.everyDays - b.everyDays);
  const away = byAge.find((backup) => backup.place === "elsewhere");
  const versions = byAge.find((backup) => backup.keepsVersions);
  const [newest] = byAge;
  return {
    dataSet: set.id,
    pool,
    tolerance: lost.tolerance,
    backups: backups.map((backup) => backup.id),
    outcomes: {
      "one-failure": afterFailures(lost.one, newest, lost.kind),
      "two-failures": afterFailures(lost.two, newest, lost.kind),
      "theft-or-fire": away
        ? { kind: "from-backup", backup: away.id, days: away.everyDays, share: 1 }
        : { kind: "lost" },
      deletion: versions
        ? { kind: "from-backup", backup: versions.id, days: versions.everyDays, share: 1 }
        : newest
          ? { kind: "until-next-copy", backup: newest.id, days: newest.everyDays }
          : { kind: "lost" },
    },
  };
}

/**
 * What one failed drive, two, a theft or a fire, and a deletion by mistake would each take of every data set: from the
 * bands of its pool, counted over all choices of drives, and from the backups that can be counted on.
 *
 * @param plan the box at a moment
 * @param day as YYYY-MM-DD, to judge how old backups are; null to leave that out
 * @example coverage(plan, "2026-11-23")[0].outcomes["theft-or-fire"]
 * // { kind: "lost" } for data that is in one place only
 */
export function coverage(plan: Plan, day: string | null): Coverage[] {
  const rules = rulesOf(plan.box.rules);
  const onDrives = (plan.dataSets ?? []).flatMap((set) => {
    const drive = plan.drives.find(({ id }) => id === set.drive);
    return drive ? [coverageOnDrive(plan, drive, set, day)] : [];
  });
  const inPools = plan.pools.flatMap((pool) => {
    const sets = dataSetsIn(plan, pool.id);
    if (sets.length === 0) return [];
    const bands = bandsOfPool(plan, pool, rules);
    const drives = pool.groups.flatMap((group) => group.drives);
    const gone = goneIn(plan);
    const one = shareLost(bands, drives, gone, 1);
    const two = shareLost(bands, drives, gone, 2);
    const laid = pool.groups.map((group) => layoutOf(group.layout));
    const kind = {
      scheduled: rules.parityWrites === "by-schedule" && laid.some((layout) => layout.dedicatedParity !== undefined),
      independent: laid.every((layout) => layout.independent),
    };
    const lost = { one, two, tolerance: toleranceOfPool(plan, pool, rules), kind };
    return sets.map((set) => coverageOf(plan, pool.id, set, lost, day));
  });
  return [...inPools, ...onDrives];
}

/**
 * Data on a drive of its own goes with it, and is gone already where the drive has failed or been erased: it holds
 * nothing any more, and is no separate drive of a pool.
 */
function coverageOnDrive(plan: Plan, drive: Drive, set: DataSet, day: string | null): Coverage {
  const owner = groupOfDrive(plan, drive.id);
  const isErased = isGone(drive) || (owner ? !isSeparate(layoutOf(owner.group.layout)) : drive.contents === undefined);
  const kind = { scheduled: false, independent: false };
  const covered = coverageOf(plan, owner?.pool.id ?? "", set, { one: 1, two: 1, tolerance: 0, kind }, day);
  const { deletion, ...others } = covered.outcomes;
  return isErased
    ? {
        ...covered,
        outcomes: {
          ...others,
          deletion: deletion.kind === "until-next-copy" ? covered.outcomes["one-failure"] : deletion,
        },
      }
    : covered;
}
