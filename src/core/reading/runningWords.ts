import { lengthWords } from "../time/hoursWords";
import type { Running } from "./printedBox";

const NAMES = {
  recovery: "the rebuild",
  resync: "the first fill, or making the copies alike after a stop,",
  reshape: "the rewrite",
  check: "the check",
} as const;

/** A share as per cent with one digit, as the kernel prints it: never more than is done. */
const perCent = (done: number): string => `${(Math.floor(done * 1000) / 10).toFixed(1)}${"\u00a0"}%`;

/**
 * Work under way, as far as the kernel tells.
 *
 * @example runningWords({ kind: "recovery", done: 0.316, minutesLeft: 0.9, … })
 * // "the rebuild is 31.6 % done and ends in about a minute, by the kernel"
 */
export function runningWords({ kind, done, minutesLeft }: Running): string {
  if (done === null) return `${NAMES[kind]} waits for other work`;
  const ends = minutesLeft === null ? "" : ` and ends in ${lengthWords(minutesLeft / 60)}, by the kernel`;
  return `${NAMES[kind]} is ${perCent(done)} done${ends}`;
}
