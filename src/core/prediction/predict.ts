import type { UnitFamily } from "../bytes/formatBytes";
import type { Plan } from "../document/plan";
import { rulesOf } from "../rules/ruleSets";
import { predictPool, type PoolPrediction } from "./predictPool";

/** The box at one moment: before the first step (`after` is null) or after a step. */
export interface Moment {
  after: string | null;
  pools: PoolPrediction[];
}

/** What the core says of a plan. */
export interface Prediction {
  pools: PoolPrediction[];
  moments: Moment[];
}

/**
 * Predicts a plan: what its pools hold, what they survive, where the bytes went and what is wrong.
 *
 * @param plan a plan whose references hold (`checkPlan`)
 * @param family the units in which the findings speak
 * @example predict(clinic).pools[0].usableBytes // what the clinic's hybrid of 4, 4, 8 and 12 TB holds
 */
export function predict(plan: Plan, family: UnitFamily = "TB"): Prediction {
  const rules = rulesOf(plan.box.rules);
  const driveOf = new Map(plan.drives.map((drive) => [drive.id, drive]));
  const pools = plan.pools.map((pool, p) => predictPool(pool, driveOf, rules, `/pools/${p}`, family));
  return { pools, moments: [{ after: null, pools }] };
}
