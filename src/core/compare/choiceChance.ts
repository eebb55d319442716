import { type Chance, ended, NO_CHANCE } from "../chance/chance";
import { readClauses } from "../chance/clauses";
import { type Conditions } from "../chance/conditions";
import { type OwnInputs, type Point, pointOf, type Spread } from "../chance/inputs";
import { chancesOfPool, overYears } from "../chance/poolChance";
import { movedAtRest } from "../chance/planChances";
import { modelDrive, type PoolModel } from "../chance/poolModel";
import { movementOf, rangeOf } from "../chance/range";
import type { Drive } from "../document/plan";
import { layoutOf } from "../layouts/registry";
import type { PoolPrediction } from "../prediction/predictPool";

/** What the chances of choices are worked out with. */
export interface ChanceSetting {
  /** As YYYY-MM-DD, by which the age of drives is judged; null takes all for two years old. */
  day: string | null;
  own: OwnInputs;
  conditions: Conditions;
}

/** How likely a choice loses something by its drives, of 1. */
export interface ChoiceChance {
  year: number;
  tenYears: number;
  /** Whether these are bounds: more drives could fail at once than were looked at. */
  isBound: boolean;
}

/** The range of a choice's chance in ten years, and what it is with each input at each end of its range. */
export interface ChoiceRange {
  tenYears: Spread;
  /** By the names of the inputs, so that two choices are held against each other at the same ends. */
  ends: Readonly<Record<string, readonly [number, number]>>;
}

/** For how many years choices are compared. */
const YEARS = 10;

/** A pool that is thought of, as its chance of loss sees it. */
export function modelOfChoice(
  { groups }: Pick<PoolPrediction, "groups">,
  driveOf: ReadonlyMap<string, Drive>,
  day: string | null,
): PoolModel {
  return {
    clauses: groups.flatMap(({ layout, bands }) => readClauses(bands, layoutOf(layout).chunked === true)),
    drives: groups.flatMap(({ drives, rebuilds }) =>
      drives.flatMap((id) => {
        const drive = driveOf.get(id);
        const hours = rebuilds.find((rebuild) => rebuild.drive === id)?.hours?.expected;
        return drive ? [modelDrive(drive, hours, false, day)] : [];
      }),
    ),
    spares: [],
  };
}

const atPoint = (model: PoolModel, point: Point, conditions: Conditions): { first: Chance; last: Chance } => {
  const years = chancesOfPool(model, point, conditions, overYears(YEARS, conditions));
  return { first: years[0] ?? NO_CHANCE, last: years.at(-1) ?? NO_CHANCE };
};

const atMost = (chance: Chance): number => ended(chance) + chance.cutOff;

/**
 * How likely a choice loses something in a year and in ten.
 *
 * @example chanceOfChoice(predictPool(…), driveOf, setting).tenYears // 0.09534 of four 12 TB drives under single parity
 */
export function chanceOfChoice(
  pool: Pick<PoolPrediction, "groups">,
  driveOf: ReadonlyMap<string, Drive>,
  { day, own, conditions }: ChanceSetting,
): ChoiceChance {
  const { first, last } = atPoint(modelOfChoice(pool, driveOf, day), pointOf(own), conditions);
  return { year: atMost(first), tenYears: atMost(last), isBound: last.cutOff > ended(last) };
}

/** The range of a choice's chance in ten years: each input alone at both its ends. */
export function rangeOfChoice(
  pool: Pick<PoolPrediction, "groups">,
  driveOf: ReadonlyMap<string, Drive>,
  { day, own, conditions }: ChanceSetting,
): ChoiceRange {
  const model = modelOfChoice(pool, driveOf, day);
  const tenYears = (point: Point) => [atMost(atPoint(model, point, conditions).last)];
  const ends = movedAtRest(model, own, conditions).map((names) => {
    const { low, high } = movementOf(names, own, tenYears);
    return [names[0] ?? "", [low[0] ?? 0, high[0] ?? 0]] as const;
  });
  const [expected = 0] = tenYears(pointOf(own));
  return {
    tenYears: rangeOf(
      expected,
      ends.flatMap(([, both]) => both),
    ),
    ends: Object.fromEntries(ends),
  };
}
