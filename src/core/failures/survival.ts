import type { Band } from "../bands/band";
import { lossClauses } from "../bands/lossClauses";

/** Of all sets of `failed` drives, how many lose nothing. */
export interface Survival {
  failed: number;
  survived: number;
  sets: number;
}

/** The number of ways to choose k of n. Exact for the sizes of boxes. */
function choose(n: number, k: number): number {
  let result = 1;
  for (let i = 1; i <= k; i += 1) result = (result * (n - k + i)) / i;
  return Math.round(result);
}

/**
 * Counts, without sampling, how many of all sets of 1, 2, … `most` drives the bands survive. Sets are built one
 * drive at a time and dropped as soon as data is lost, since no further failure brings it back.
 *
 * @param bands bands that stand or fall together
 * @param drives ids of the drives that may fail; at least all that are in the bands
 * @param most the largest number of drives that fail at once
 * @example survivalOf(raid5BandsOfFour, ["d1", "d2", "d3", "d4"], 2) // [{ failed: 1, survived: 4, sets: 4 }, { failed: 2, survived: 0, sets: 6 }]
 */
export function survivalOf(bands: readonly Band[], drives: readonly string[], most: number): Survival[] {
  const clauses = bands.flatMap(lossClauses);
  const left = clauses.map((clause) => clause.tolerance);
  const place = new Map(drives.map((drive, index) => [drive, index]));
  const clausesOf: number[][] = drives.map(() => []);
  clauses.forEach((clause, c) => clause.drives.forEach((drive) => clausesOf[place.get(drive) ?? -1]?.push(c)));

  const depth = Math.min(most, drives.length);
  const survived = new Array<number>(depth + 1).fill(0);
  const extend = (from: number, size: number) => {
    for (let d = from; d < drives.length; d += 1) {
      const hit = clausesOf[d] ?? [];
      let alive = true;
      for (const c of hit) {
        left[c] = (left[c] ?? 0) - 1;
        if ((left[c] ?? 0) < 0) alive = false;
      }
      if (alive) {
        survived[size] = (survived[size] ?? 0) + 1;
        if (size < depth) extend(d + 1, size + 1);
      }
      for (const c of hit) left[c] = (left[c] ?? 0) + 1;
    }
  };
  if (depth > 0) extend(0, 1);
  return survived.slice(1).map((count, i) => ({ failed: i + 1, survived: count, sets: choose(drives.length, i + 1) }));
}
