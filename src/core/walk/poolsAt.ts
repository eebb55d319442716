import { type UnitFamily } from "../bytes/formatBytes";
import type { Plan } from "../document/plan";
import { predict } from "../prediction/predict";
import type { PoolPrediction } from "../prediction/predictPool";
import type { WalkedMoment } from "./moment";

/**
 * Everything that the core says of the pools at a moment; worked out when it is asked for, and kept.
 *
 * @example poolsAt(moment, "TB")[0].tolerance
 */
export function poolsAt(moment: WalkedMoment, family: UnitFamily): PoolPrediction[] {
  const kept = predictions.get(moment.state.plan);
  if (kept && kept.family === family) return kept.pools;
  const pools = predict(moment.state.plan, family).pools;
  predictions.set(moment.state.plan, { family, pools });
  return pools;
}

export const predictions = new WeakMap<Plan, { family: UnitFamily; pools: PoolPrediction[] }>();
