import type { Band } from "../bands/band";
import { bandsOfPool, toleranceOfPool } from "../box/figures";
import type { Backup, DataSet, Plan, Pool } from "../document/plan";
import { fateOf } from "../failures/fate";
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
 * the next copy is made. *partly*: lost for some choices of drives, with no backup. *lost*: gone.
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
  | { kind: "lost" };

export interface Coverage {
  dataSet: string;
  pool: string;
  /** How many drives of the pool may fail, whichever. */
  tolerance: number;
  /** The backups that can be counted on. */
  backups: string[];
  outcomes: Record<Threat, Outcome>;
}

/** Of all sets of so many drives of a pool, the share that costs data. */
function shareLost(bands: readonly Band[], drives: readonly string[], failures: 1 | 2): number {
  const sets =
    failures === 1 ? drives.map((drive) => [drive]) : drives.flatMap((a, i) => drives.slice(i + 1).map((b) => [a, b]));
  if (sets.length === 0) return 1;
  return sets.filter((set) => ["lost", "partly-lost"].includes(fateOf(bands, new Set(set)).kind)).length / sets.length;
}

function afterFailures(share: number, restore: Backup | undefined): Outcome {
  if (share === 0) return { kind: "kept" };
  if (restore) return { kind: "from-backup", backup: restore.id, days: restore.everyDays, share };
  return share < 1 ? { kind: "partly", share } : { kind: "lost" };
}

function coverageOf(
  plan: Plan,
  pool: Pool,
  set: DataSet,
  lost: { one: number; two: number; tolerance: number },
  day: string | null,
): Coverage {
  const backups = currentBackups(plan, set, day);
  const byAge = [...backups].sort((a, b) => a.everyDays - b.everyDays);
  const away = byAge.find((backup) => backup.place === "elsewhere");
  const versions = byAge.find((backup) => backup.keepsVersions);
  const [newest] = byAge;
  return {
    dataSet: set.id,
    pool: pool.id,
    tolerance: lost.tolerance,
    backups: backups.map((backup) => backup.id),
    outcomes: {
      "one-failure": afterFailures(lost.one, newest),
      "two-failures": afterFailures(lost.two, newest),
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
 * @example coverage(plan, "2026-11-23")[0].outcomes["theft-or-fire"] // { kind: "lost" } for data that is in one place only
 */
export function coverage(plan: Plan, day: string | null): Coverage[] {
  const rules = rulesOf(plan.box.rules);
  return plan.pools.flatMap((pool) => {
    const sets = dataSetsIn(plan, pool.id);
    if (sets.length === 0) return [];
    const bands = bandsOfPool(plan, pool, rules);
    const drives = pool.groups.flatMap((group) => group.drives);
    const one = shareLost(bands, drives, 1);
    const two = shareLost(bands, drives, 2);
    const lost = { one, two, tolerance: toleranceOfPool(plan, pool, rules) };
    return sets.map((set) => coverageOf(plan, pool, set, lost, day));
  });
}
