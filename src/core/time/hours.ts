import type { Bytes } from "../bytes/bytes";

/** A duration as it is told: never one figure, always what is likely and between what. In hours. */
export interface Hours {
  low: number;
  expected: number;
  high: number;
}

/** No time at all. */
export const NO_HOURS: Hours = { low: 0, expected: 0, high: 0 };

/** Two durations, one after the other. */
export const addHours = (one: Hours, other: Hours): Hours => ({
  low: one.low + other.low,
  expected: one.expected + other.expected,
  high: one.high + other.high,
});

/** Two things at the same time: the longer one decides. */
export const longerHours = (one: Hours, other: Hours): Hours => (one.expected >= other.expected ? one : other);

/** Low and high are these shares of the expected hours, until the logbook knows better. */
const LOW = 0.65;
const HIGH = 1.6;

/**
 * The hours that some bytes take at a rate.
 *
 * @param bytes on the drive that has most to process
 * @param rate bytes per second, above 0
 * @example hoursFor(4_000_787_030_016, 90e6) // expected 12.3, between 8.0 and 19.8
 */
export function hoursFor(bytes: Bytes, rate: number): Hours {
  const expected = bytes / rate / 3600;
  return { low: expected * LOW, expected, high: expected * HIGH };
}
