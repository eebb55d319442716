import { type UnitFamily } from "../bytes/formatBytes";
import type { Plan, Step } from "../document/plan";
import { predict } from "../prediction/predict";
import type { PoolPrediction } from "../prediction/predictPool";
import type { Walk, WalkedMoment } from "./moment";

/**
 * Everything that the core says of the pools at a moment; worked out when it is asked for, and kept.
 *
 * @param begins the step that begins at this moment, if any: where it fills a spare, the pool is rebuilding
 * @example poolsAt(moment, "TB")[0].tolerance
 */
export function poolsAt(moment: WalkedMoment, family: UnitFamily, begins?: Step): PoolPrediction[] {
  // Whatever else begins changes nothing of a moment, and moments of one state are worked out once.
  const next = begins?.kind === "rebuild" ? begins : undefined;
  const kept = predictions.get(moment.state.plan);
  if (kept && kept.family === family && kept.next === next) return kept.pools;
  const pools = predict(moment.state.plan, family, next).pools;
  predictions.set(moment.state.plan, { family, next, pools });
  return pools;
}

export const predictions = new WeakMap<Plan, { family: UnitFamily; next: Step | undefined; pools: PoolPrediction[] }>();

/**
 * The step that begins at a moment of a walk: the next that is not skipped.
 *
 * @param at the index of the moment
 * @example nextStep(walked, 0)?.kind // "rebuild" where a spare has taken over
 */
export const nextStep = ({ moments }: Pick<Walk, "moments">, at: number): Step | undefined =>
  moments.slice(at + 1).find(({ walked }) => walked && !walked.step.disabled)?.walked?.step;
