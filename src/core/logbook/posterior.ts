import type { WorkKind } from "../document/plan";
import type { RecordedTime } from "./recordedTime";

// How fast a box is, learned from its own times. ln(actual ÷ expected) of an entry is the sum of three normal parts:
// one of the box, common to all its work, one of the kind of work, and one of the entry alone.

/** Spread of the box's part, in ln. */
export const BOX_SPREAD = 0.28;
/** Spread of the part of a kind of work. */
export const KIND_SPREAD = 0.19;
/** Spread of a single entry. */
export const ENTRY_SPREAD = 0.1;

/** Where nine of ten normal values are below: the 90 % point. */
const NINETY = 1.2815515655446004;

/** What is known of the next time of a kind of work. */
export interface Posterior {
  /** Mean of ln(actual ÷ expected) of the next one. */
  mean: number;
  /** Its spread, that of a single entry included. */
  spread: number;
  /** How many entries of this kind it builds on. */
  own: number;
  /** How many of other kinds. */
  others: number;
}

/**
 * The next time of a kind of work, by the times of this kind (strongly) and of others (weakly, through the box's part).
 *
 * In closed form: the mean of n entries of a kind scatters around the box's part with variance κ² + ε² ÷ n, so that
 * the box's part has precision 1 ÷ β² + Σ 1 ÷ (κ² + ε² ÷ n); given it, the kind's own part has w = κ² ÷ (κ² + ε² ÷ n).
 *
 * @param times those that count
 * @example posteriorOf("rebuild", []) // { mean: 0, spread: 0.353, own: 0, others: 0 }
 */
export function posteriorOf(work: WorkKind, times: readonly RecordedTime[]): Posterior {
  const byKind = new Map<WorkKind, RecordedTime[]>();
  for (const time of times) {
    const list = byKind.get(time.work);
    if (list) list.push(time);
    else byKind.set(time.work, [time]);
  }
  const [kind2, entry2] = [KIND_SPREAD ** 2, ENTRY_SPREAD ** 2];
  const meanOf = (list: readonly RecordedTime[]) =>
    list.reduce((sum, { ratio }) => sum + Math.log(ratio), 0) / list.length;
  let precision = 1 / BOX_SPREAD ** 2;
  let weighted = 0;
  for (const list of byKind.values()) {
    const own = 1 / (kind2 + entry2 / list.length);
    precision += own;
    weighted += own * meanOf(list);
  }
  const box = { mean: weighted / precision, variance: 1 / precision };
  const mine = byKind.get(work) ?? [];
  const weight = mine.length === 0 ? 0 : kind2 / (kind2 + entry2 / mine.length);
  return {
    mean: (1 - weight) * box.mean + (mine.length === 0 ? 0 : weight * meanOf(mine)),
    spread: Math.sqrt((1 - weight) ** 2 * box.variance + kind2 * (1 - weight) + entry2),
    own: mine.length,
    others: times.length - mine.length,
  };
}

/**
 * The factors by which the usual hours are multiplied: the middle one, and the 10 % and 90 % points.
 *
 * @example factorsOf({ mean: 0, spread: 0.353, … }) // { low: 0.64, expected: 1, high: 1.57 }
 */
export const factorsOf = ({ mean, spread }: Pick<Posterior, "mean" | "spread">) => ({
  low: Math.exp(mean - NINETY * spread),
  expected: Math.exp(mean),
  high: Math.exp(mean + NINETY * spread),
});
