import { oneOrMany } from "../words/counted";
import type { Hours } from "./hours";

/** Below this an hour is told in minutes. */
const IN_MINUTES = 0.95;

const figure = (hours: number) => (hours < 9.95 ? hours.toFixed(1) : String(Math.round(hours)));
const minutes = (hours: number) => Math.max(hours > 0 ? 1 : 0, Math.round(hours * 60));

/**
 * A duration with its range, in minutes where it is less than an hour.
 *
 * @example hoursWords({ low: 8, expected: 12.3, high: 19.7 }) // "12 h (8.0 to 20)"
 * @example hoursWords({ low: 0.05, expected: 0.1, high: 0.5 }) // "6 min (3 to 30)"
 */
export function hoursWords(hours: Hours): string {
  return hours.expected < IN_MINUTES
    ? `${minutes(hours.expected)} min (${minutes(hours.low)} to ${minutes(hours.high)})`
    : `${figure(hours.expected)} h (${figure(hours.low)} to ${figure(hours.high)})`;
}

/**
 * A length of time in words: minutes, hours to two days, days above.
 *
 * @example lengthWords(0.1) // "about 6 minutes"
 * @example lengthWords(60) // "about 2.5 days"
 */
export function lengthWords(hours: number): string {
  if (hours < IN_MINUTES) return `about ${oneOrMany(minutes(hours), "a minute", "minutes")}`;
  if (hours < 48) return `about ${oneOrMany(Math.round(hours), "an hour", "hours")}`;
  return `about ${(hours / 24).toFixed(hours < 240 ? 1 : 0).replace(/\.0$/, "")} days`;
}
