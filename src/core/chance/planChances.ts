import type { Walk } from "../walk/moment";
import { type AlongPlan, chancesAlong, type Walked, walkedOf } from "./alongPlan";
import { chancesAtRest, type PoolAtRest, type Resting, restingOf } from "./atRest";
import { type Conditions, conditionsOf, ownInputsOf } from "./conditions";
import { numbersIn, type Ranged, rangedTree } from "./figures";
import { type InputName, type OwnInputs, type Point, pointOf } from "./inputs";
import type { PoolModel } from "./poolModel";
import { movable, type Movement, movementOf, rangesOf } from "./range";

/** The chances of a plan: at rest at some of its moments, and along its steps. */
export interface PlanChances {
  /** By the number of the moment, as text. */
  moments: { at: string; pools: PoolAtRest[] }[];
  along: AlongPlan;
}

/** A plan made ready for its chances. */
export interface PreparedChances {
  own: OwnInputs;
  conditions: Conditions;
  resting: readonly { at: number; resting: Resting }[];
  walked: Walked;
}

/**
 * Makes a plan ready for its chances.
 *
 * @param moments at which the box is at rest, counted from 0; those that there are not are left out
 * @example prepareChances(walk, [0, walk.moments.length - 1])
 */
export function prepareChances(walk: Walk, moments: readonly number[]): PreparedChances {
  return {
    own: ownInputsOf(walk.plan),
    conditions: conditionsOf(walk.plan),
    resting: [...new Set(moments)].flatMap((at) => {
      const moment = walk.moments[at];
      return moment ? [{ at, resting: restingOf(moment.state.plan, walk.day) }] : [];
    }),
    walked: walkedOf(walk),
  };
}

/** The chances of a plan at one value of each input. */
export const chancesAt = ({ resting, walked, conditions }: PreparedChances, point: Point): PlanChances => ({
  moments: resting.map(({ at, resting: box }) => ({ at: String(at), pools: chancesAtRest(box, point, conditions) })),
  along: chancesAlong(walked, point, conditions),
});

/** What of a plan decides which inputs have anything to do with it. */
interface Concerned {
  models: readonly Pick<PoolModel, "drives">[];
  conditions: Conditions;
  isBackedUp: boolean;
  rewrites: ReadonlySet<string>;
}

/** Whether an input has anything to do with a plan: of the others no end of their range moves anything. */
function matters(name: InputName, { models, conditions, isBackedUp, rewrites }: Concerned): boolean {
  const some = (which: (of: PoolModel["drives"][number]["of"]) => boolean) =>
    models.some(({ drives }) => drives.some(({ of }) => which(of)));
  const only: Partial<Record<InputName, boolean>> = {
    flash: some(({ medium }) => medium === "ssd"),
    worn: some(({ health }) => health.state === "watch"),
    failing: some(({ health }) => health.state === "failing"),
    noticeWithAlerts: conditions.alerts,
    noticeWithout: !conditions.alerts,
    deliveryFromShelf: conditions.spareOnShelf,
    deliveryOrdered: !conditions.spareOnShelf,
    powerCuts: rewrites.size > 0,
    damageOfLevelChange: rewrites.has("level-change"),
    damageOfWidening: rewrites.has("widening"),
    restoreFailsTested: isBackedUp,
    restoreFailsUntested: isBackedUp,
    daysUntilDeletionNoticed: isBackedUp,
  };
  return only[name] ?? (name.startsWith("diskYear") ? some(({ medium }) => medium === "hdd") : true);
}

/** The inputs whose ends are tried for a plan, each with those that move with it. */
function movedFor({ own, resting, walked, conditions }: PreparedChances): (readonly InputName[])[] {
  const concerned = {
    models: [
      ...resting.flatMap(({ resting: { pools } }) => pools.map(({ model }) => model)),
      ...walked.stretches.flatMap(({ parts }) => parts.map(({ model }) => model)),
    ],
    conditions,
    isBackedUp: resting.some(({ resting: { plan } }) => (plan.backups ?? []).length > 0),
    rewrites: new Set(walked.stretches.flatMap(({ rewrites }) => rewrites ?? [])),
  };
  return movable(own).filter((names) => names.some((name) => matters(name, concerned)));
}

/** Inputs that do not lie with drives. */
const NOT_OF_DRIVES: ReadonlySet<InputName> = new Set(["theftOrFire", "deletion"]);

/**
 * The inputs whose ends move what the drives of a pool cost at rest, each with those that move with it.
 *
 * @example movedAtRest(model, {}, conditions).length // 7 of hard disks that are all sound
 */
export const movedAtRest = (model: PoolModel, own: OwnInputs, conditions: Conditions): (readonly InputName[])[] =>
  movable(own).filter((names) =>
    names.some(
      (name) =>
        !NOT_OF_DRIVES.has(name) &&
        matters(name, { models: [model], conditions, isBackedUp: false, rewrites: new Set() }),
    ),
  );

/** What one input, at each end of its range, makes of all chances. */
export interface MovedChances {
  names: readonly InputName[];
  chances: Ranged<PlanChances>;
}

/** Chances as far as they are known: at first the expected ones, and in the end their ranges. */
export interface ChancesSoFar {
  expected: PlanChances;
  /** With ranges once all inputs have been moved. */
  ranged: Ranged<PlanChances> | null;
  moved: MovedChances[];
  /** What of the inputs has been moved, 0 to 1. */
  share: number;
}

/**
 * The chances of a plan, and then their ranges: each input alone is moved to both ends, one after the other.
 *
 * @example [...chancesOfPlan(prepareChances(walk, [0]))].at(-1)?.ranged?.along.any // { low, expected, high }
 */
export function* chancesOfPlan(prepared: PreparedChances): Generator<ChancesSoFar> {
  const { own } = prepared;
  const expected = chancesAt(prepared, pointOf(own));
  const numbers = numbersIn(expected);
  const names = movedFor(prepared);
  const moved: MovedChances[] = [];
  const movements: Movement[] = [];
  yield { expected, ranged: null, moved: [], share: 0 };
  for (const each of names) {
    const movement = movementOf(each, own, (point) => numbersIn(chancesAt(prepared, point)));
    movements.push(movement);
    const ends = numbers.map((number, i) => ({
      low: movement.low[i] ?? number,
      expected: number,
      high: movement.high[i] ?? number,
    }));
    moved.push({ names: each, chances: rangedTree(expected, ends) });
    yield { expected, ranged: null, moved: [...moved], share: movements.length / names.length };
  }
  yield { expected, ranged: rangedTree(expected, rangesOf(numbers, movements)), moved, share: 1 };
}

/** The chances of a plan with their ranges, all at once. */
export function rangedChances(prepared: PreparedChances): Ranged<PlanChances> {
  const { own } = prepared;
  const numbers = (point: Point) => numbersIn(chancesAt(prepared, point));
  const expected = chancesAt(prepared, pointOf(own));
  return rangedTree(
    expected,
    rangesOf(
      numbersIn(expected),
      movedFor(prepared).map((names) => movementOf(names, own, numbers)),
    ),
  );
}
