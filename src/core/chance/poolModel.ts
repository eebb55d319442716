import { usedShare } from "../box/capacities";
import { bandsOfGroup, dataOfPool } from "../box/figures";
import { drivesOf } from "../box/find";
import { goneIn } from "../box/gone";
import { serviceOf } from "../box/standIn";
import type { BoxRules, Drive, Plan, Pool } from "../document/plan";
import { layoutOf } from "../layouts/registry";
import { rebuildsOf } from "../speeds/rebuild";
import { type ReadClause, readClauses } from "./clauses";
import type { ChanceDrive, SpareServes } from "./component";
import { ageOf, failureRate } from "./failureRate";
import type { Point } from "./inputs";

/** A drive of a pool, with what of its chance does not hang on the inputs. */
export interface ModelDrive extends Omit<ChanceDrive, "rates"> {
  of: Pick<Drive, "medium" | "health">;
  /** In years, at the beginning. */
  age: number;
}

/** A pool as its chance of loss sees it. */
export interface PoolModel {
  drives: readonly ModelDrive[];
  clauses: readonly ReadClause[];
  spares: readonly SpareServes[];
}

/** What cannot be rebuilt is lost with its first drive; how long it would take does not matter. */
const NOT_REBUILT = 24;

/** The drives of one batch, as far as anybody can tell: of one model, bought on one day. */
const batchOf = ({ model, purchased, medium }: Drive): string => `${medium} ${model ?? ""} ${purchased ?? ""}`;

/**
 * A drive as its chance of loss sees it.
 *
 * @param rebuildHours that are expected to fill another in its place; undefined where nothing fills it
 */
export const modelDrive = (
  drive: Drive,
  rebuildHours: number | undefined,
  isGone: boolean,
  day: string | null,
): ModelDrive => ({
  id: drive.id,
  bytes: drive.bytes,
  of: drive,
  age: ageOf(drive, day),
  rebuildHours: Math.max(0.1, rebuildHours ?? NOT_REBUILT),
  batch: batchOf(drive),
  isGone,
});

/**
 * A pool at one moment of a plan as its chance of loss sees it.
 *
 * @param day as YYYY-MM-DD, by which the age of drives is judged; null takes all for two years old
 * @example modelOfPool(plan, pool, rules, null).clauses // [{ drives: ["d1", "d2"], tolerance: 1, reads: [4e12, 4e12] }]
 */
export function modelOfPool(plan: Plan, pool: Pool, rules: BoxRules, day: string | null): PoolModel {
  const gone = goneIn(plan);
  const used = usedShare(pool, dataOfPool(plan, pool, rules));
  const clauses: ReadClause[] = [];
  const drives: ModelDrive[] = [];
  for (const group of pool.groups) {
    const bands = bandsOfGroup(plan, group, rules);
    const members = drivesOf(plan, group.drives);
    clauses.push(...readClauses(bands, layoutOf(group.layout).chunked === true));
    const rebuilds = new Map(rebuildsOf(bands, members, rules, used).map(({ drive, hours }) => [drive, hours]));
    for (const drive of members)
      drives.push(modelDrive(drive, rebuilds.get(drive.id)?.expected, gone.has(drive.id), day));
  }
  const standBy = [...pool.spares, ...pool.groups.flatMap((group) => group.spares ?? [])];
  const spares = standBy.filter((id) => !gone.has(id)).map((id) => serviceOf(plan, pool, id, rules, "TB").serves);
  return { drives, clauses, spares: spares.filter((serves) => serves.length > 0) };
}

/** The drives of a model with how often each fails, in each of so many years. */
export const drivesAt = ({ drives }: Pick<PoolModel, "drives">, point: Point, years: number): ChanceDrive[] =>
  drives.map(({ of, age, ...drive }) => ({
    ...drive,
    rates: Array.from({ length: years }, (_, year) => failureRate(of, age + year, point)),
  }));
