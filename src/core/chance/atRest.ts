import { rulesOfBox } from "../box/rulesOfBox";
import { dataSetsIn } from "../data/stored";
import type { Plan } from "../document/plan";
import { type Chance, ended, NO_CHANCE, poolLost } from "./chance";
import type { Conditions } from "./conditions";
import type { Point } from "./inputs";
import { allCauses, anyCause, type BackupWorth, type ByCause, missed, withBackups, worthOf } from "./otherCauses";
import { chancesOfPool, overYears } from "./poolChance";
import { modelOfPool, type PoolModel } from "./poolModel";

/** For how many years the chance is told at most. */
export const YEARS = 10;

/** What of a moment of a plan its chances follow from, whatever the inputs. */
export interface Resting {
  plan: Plan;
  day: string | null;
  pools: readonly { id: string; model: PoolModel }[];
}

/**
 * The pools of a plan at a moment, made ready for their chances.
 *
 * @param day as YYYY-MM-DD, by which the ages of drives and of backups are judged
 */
export function restingOf(plan: Plan, day: string | null): Resting {
  const rules = rulesOfBox(plan);
  return {
    plan,
    day,
    pools: plan.pools.map((pool) => ({ id: pool.id, model: modelOfPool(plan, pool, rules, day) })),
  };
}

/** The two things that drives may cost: never one figure. */
export interface TwoRows {
  poolLost: number;
  fileDamaged: number;
}

/** How likely a pool loses something in some time at rest. */
export interface PoolInTime extends TwoRows {
  /** Either of the two. */
  any: number;
  /** By which cause: those of drives, and others. */
  causes: ByCause;
  /** The same after what the backups bring back; of those data sets that would be missed the one that fares worst. */
  withBackups: ByCause;
}

/** A pool's chances at rest. */
export interface PoolAtRest {
  id: string;
  year: PoolInTime;
  tenYears: PoolInTime;
  /** That drives cost something by the end of each year. */
  byYear: number[];
  /** By cause, after what backups bring back, and by any of them. */
  dataSets: { id: string; year: ByCause; tenYears: ByCause; anyInYear: number; anyInTenYears: number }[];
}

const inTime = (chance: Chance, years: number, point: Point, backups: readonly BackupWorth[][]): PoolInTime => {
  const causes = allCauses(chance, years, point);
  const left = backups.map((each) => withBackups(causes, each));
  return {
    poolLost: poolLost(chance),
    fileDamaged: chance.sector,
    any: ended(chance),
    causes,
    withBackups: left.reduce<ByCause>(worse, left[0] ?? causes),
  };
};

/** The worse of two, cause by cause. */
function worse(one: ByCause, other: ByCause): ByCause {
  const entries = Object.entries(one) as [keyof ByCause, number][];
  return Object.fromEntries(entries.map(([cause, chance]) => [cause, Math.max(chance, other[cause])])) as ByCause;
}

/**
 * How likely each pool of a plan loses something at rest, in a year and in ten, at one value of each input.
 *
 * @param within for how many years it is looked ahead; where they are fewer than ten, these take their place
 * @example chancesAtRest(restingOf(plan, null), pointOf({}), conditionsOf(plan))[0].year.fileDamaged
 */
export function chancesAtRest(
  { plan, day, pools }: Resting,
  point: Point,
  conditions: Conditions,
  within = YEARS,
): PoolAtRest[] {
  return pools.map(({ id, model }) => {
    const sets = dataSetsIn(plan, id);
    const backups = sets.map((set) => worthOf(plan, set, day, point));
    const counted = missed(sets).map((set) => backups[sets.indexOf(set)] ?? []);
    const years = chancesOfPool(model, point, conditions, overYears(within, conditions));
    const [first, last] = [years[0] ?? NO_CHANCE, years.at(-1) ?? NO_CHANCE];
    const year = inTime(first, 1, point, counted);
    const tenYears = inTime(last, within, point, counted);
    return {
      id,
      year,
      tenYears,
      byYear: years.map(ended),
      dataSets: sets.map((set, i) => {
        const own = backups[i] ?? [];
        const [oneYear, ten] = [withBackups(year.causes, own), withBackups(tenYears.causes, own)];
        return { id: set.id, year: oneYear, tenYears: ten, anyInYear: anyCause(oneYear), anyInTenYears: anyCause(ten) };
      }),
    };
  });
}
