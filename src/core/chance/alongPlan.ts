import { dataSetsIn } from "../data/stored";
import type { Plan } from "../document/plan";
import type { Walk } from "../walk/moment";
import type { Conditions } from "./conditions";
import type { Point } from "./inputs";
import { anyCause, type ByCause, missed, NO_CAUSE, withBackups, worthOf } from "./otherCauses";
import { chanceOfStretch, type StepChance, type Stretch, stretchesOf } from "./stepChance";

/** How likely a step costs something, whichever pool it is of. */
export interface StepInPlan {
  step: string;
  any: number;
  causes: ByCause;
  /** What none of the backups that there are then brings back. */
  withBackups: number;
}

/** How likely the steps of a plan cost something. */
export interface AlongPlan {
  steps: StepInPlan[];
  /** That any of them does. */
  any: number;
  /** That a pool is lost: not only a file damaged. */
  poolLost: number;
  withBackups: number;
}

/** A walked plan, made ready for its chances. */
export interface Walked {
  stretches: readonly Stretch[];
  /** The box before each step, by the steps' ids. */
  before: ReadonlyMap<string, Plan>;
  day: string | null;
}

/** Makes a walked plan ready for its chances. */
export function walkedOf(walk: Walk): Walked {
  const before = new Map(
    walk.moments.flatMap(({ walked }, i) => {
      const plan = walk.moments[i - 1]?.state.plan;
      return walked && plan ? [[walked.step.id, plan] as const] : [];
    }),
  );
  return { stretches: stretchesOf(walk), before, day: walk.day };
}

const causesOf = ({ waiting, rebuilding, sector, powerCut }: StepChance): ByCause => ({
  ...NO_CAUSE,
  waiting,
  rebuilding,
  sector,
  "power-cut": powerCut,
});

/** What comes together by itself: of each cause, that it strikes one pool or the other. */
const either = (one: ByCause, other: ByCause): ByCause => {
  const entries = Object.entries(one) as [keyof ByCause, number][];
  return Object.fromEntries(entries.map(([cause, a]) => [cause, 1 - (1 - a) * (1 - other[cause])])) as ByCause;
};

/** What no backup brings back of what a step costs a pool: of the data set that fares worst. */
function leftWithBackups(
  plan: Plan | undefined,
  pool: string,
  causes: ByCause,
  day: string | null,
  point: Point,
): number {
  const sets = plan ? missed(dataSetsIn(plan, pool)) : [];
  if (!plan || sets.length === 0) return anyCause(causes);
  return Math.max(...sets.map((set) => anyCause(withBackups(causes, worthOf(plan, set, day, point)))));
}

/**
 * How likely each step of a plan costs something, and all of them together, at one value of each input. What befalls
 * the pools meanwhile without their being worked on counts as well.
 *
 * @example chancesAlong(walkedOf(walk), pointOf({}), conditionsOf(plan)).any // 0.1077
 */
export function chancesAlong({ stretches, before, day }: Walked, point: Point, conditions: Conditions): AlongPlan {
  const steps = new Map<string, StepInPlan>();
  let [sound, whole, kept] = [1, 1, 1];
  for (const stretch of stretches) {
    const chance = chanceOfStretch(stretch, point, conditions);
    const causes = causesOf(chance);
    const left = leftWithBackups(before.get(stretch.step), stretch.pool, causes, day, point);
    const old = steps.get(stretch.step);
    const both = old ? either(old.causes, causes) : causes;
    const any = anyCause(both);
    steps.set(stretch.step, {
      step: stretch.step,
      any,
      causes: both,
      withBackups: old ? 1 - (1 - old.withBackups) * (1 - left) : left,
    });
    sound *= 1 - anyCause(causes);
    whole *= 1 - chance.waiting - chance.rebuilding;
    kept *= 1 - left;
  }
  return { steps: [...steps.values()], any: 1 - sound, poolLost: 1 - whole, withBackups: 1 - kept };
}
