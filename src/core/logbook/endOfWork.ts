import type { StepUnderWay } from "../document/plan";
import { hoursBetween } from "./recordedTime";
import type { Hours } from "../time/hours";

/** When work that is under way ends, in milliseconds since 1970. */
export interface EndOfWork {
  low: number;
  expected: number;
  high: number;
  /** The reading that it builds on; null where it goes by the hours that were expected. */
  by: { at: string; share: number } | null;
}

/** Where nine of ten normal values are below: the 90 % point. */
const NINETY = 1.2815515655446004;

/** How much the pace of what is left differs from the pace so far, in ln: a hard disk is slower inside than outside. */
const PACE_SPREAD = 0.15;

/** A percentage is read to half of one. */
const READ_TO = 0.005;

const HOUR = 3_600_000;

/** How far the ranges of hours lie apart, as the spread of a normal in ln. */
const spreadOf = ({ low, high }: Hours): number => Math.log(high / low) / (2 * NINETY);

/**
 * When a step that is under way ends. By the last reading: what is left is what was expected of it, and what the pace
 * so far would make of it, weighed by how sure each is (both normal in ln). The later the reading, the narrower.
 *
 * @param hours what was expected of the whole
 * @example endOfWork({ step: "s1", start: "2026-11-26T10:00Z", readings: [{ at: "2026-11-26T15:00Z", share: 0.5 }] }, hours).expected
 * // about 20:00 where ten hours were expected
 */
export function endOfWork({ start, readings = [] }: StepUnderWay, hours: Hours): EndOfWork {
  const begun = Date.parse(start);
  const last = readings.at(-1);
  if (!last || last.share <= 0 || hours.expected <= 0 || hours.low <= 0) {
    const at = (after: number) => begun + after * HOUR;
    return { low: at(hours.low), expected: at(hours.expected), high: at(hours.high), by: null };
  }
  const left = 1 - last.share;
  const soFar = Math.max(hoursBetween(start, last.at), 1 / 60);
  const expected = Math.max(spreadOf(hours), 0.01);
  const seen = Math.hypot(PACE_SPREAD, READ_TO / last.share);
  const [byPlan, byPace] = [1 / expected ** 2, 1 / seen ** 2];
  const mean = (byPlan * Math.log(hours.expected) + byPace * Math.log(soFar / last.share)) / (byPlan + byPace);
  const spread = Math.sqrt(1 / (byPlan + byPace));
  const at = (points: number) => Date.parse(last.at) + left * Math.exp(mean + points * spread) * HOUR;
  return { low: at(-NINETY), expected: at(0), high: at(NINETY), by: last };
}
