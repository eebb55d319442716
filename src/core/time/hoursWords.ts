import type { Hours } from "./hours";

const figure = (hours: number) => (hours < 9.95 ? hours.toFixed(1) : String(Math.round(hours)));

/**
 * A duration with its range.
 *
 * @example hoursWords({ low: 8, expected: 12.3, high: 19.7 }) // "12 h (8.0 to 20)"
 */
export function hoursWords(hours: Hours): string {
  return `${figure(hours.expected)} h (${figure(hours.low)} to ${figure(hours.high)})`;
}
