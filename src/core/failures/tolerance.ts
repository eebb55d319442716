import type { Band } from "../bands/band";
import { lossClauses } from "../bands/lossClauses";

/**
 * A smallest set of drives whose loss together destroys data: one more than the tightest clause allows.
 *
 * @returns ids of drives; empty without bands
 * @example smallestFatalSet(raid5Bands) // ["d1", "d2"]
 */
export function smallestFatalSet(bands: readonly Band[]): string[] {
  const clauses = bands.flatMap(lossClauses);
  const tightest = clauses.reduce<(typeof clauses)[number] | null>(
    (best, each) => (best === null || each.tolerance < best.tolerance ? each : best),
    null,
  );
  return tightest ? tightest.drives.slice(0, tightest.tolerance + 1) : [];
}

/**
 * How many drives can be lost at once, whichever they are, with nothing lost. 0 without bands.
 *
 * @example toleranceOf(raid6Bands) // 2
 */
export function toleranceOf(bands: readonly Band[]): number {
  let least = Infinity;
  for (const band of bands) for (const clause of lossClauses(band)) least = Math.min(least, clause.tolerance);
  return least === Infinity ? 0 : least;
}
