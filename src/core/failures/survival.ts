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
 * Counts, without sampling, how many of all sets of 1, 2, … `most` drives the bands survive. Drives that stand in the
 * same clauses are interchangeable, so sets are counted by how many they take of each such class, and dropped as soon
 * as data is lost.
 *
 * @param bands bands that stand or fall together
 * @param drives ids of the drives that can fail; at least all that are in the bands
 * @param most the largest number of drives that fail at once
 * @example survivalOf(raid5BandsOfFour, ["d1", "d2", "d3", "d4"], 2)
 * // [{ failed: 1, survived: 4, sets: 4 }, { failed: 2, survived: 0, sets: 6 }]
 */
export function survivalOf(bands: readonly Band[], drives: readonly string[], most: number): Survival[] {
  const depth = Math.min(most, drives.length);
  const clauses = bands.flatMap(lossClauses);
  const least = Math.min(...clauses.map((clause) => clause.tolerance));
  // Where one of the tightest clauses is about every drive, it alone decides: so it is in groups made at once.
  if (clauses.some((clause) => clause.tolerance === least && clause.drives.length === drives.length))
    return Array.from({ length: depth }, (_, i) => {
      const sets = choose(drives.length, i + 1);
      return { failed: i + 1, survived: i < least ? sets : 0, sets };
    });
  const classes = new Map<string, { clauses: number[]; drives: number }>();
  for (const drive of drives) {
    const own = clauses.flatMap((clause, c) => (clause.drives.includes(drive) ? [c] : []));
    const known = classes.get(own.join());
    if (known) known.drives += 1;
    else classes.set(own.join(), { clauses: own, drives: 1 });
  }

  const survived = new Array<number>(depth + 1).fill(0);
  const left = clauses.map((clause) => clause.tolerance);
  const all = [...classes.values()];
  const clausesAt = all.map((each) => each.clauses);
  const counts = all.map((each) => each.drives);
  const extend = (from: number, size: number, ways: number) => {
    survived[size] = (survived[size] ?? 0) + ways;
    if (size === depth) return;
    for (let at = from; at < all.length; at += 1) {
      const own = clausesAt[at] as number[];
      const count = counts[at] as number;
      let bearable = Math.min(count, depth - size);
      for (const c of own) bearable = Math.min(bearable, left[c] ?? 0);
      for (let taken = 1; taken <= bearable; taken += 1) {
        for (const c of own) left[c] = (left[c] ?? 0) - taken;
        extend(at + 1, size + taken, ways * choose(count, taken));
        for (const c of own) left[c] = (left[c] ?? 0) + taken;
      }
    }
  };
  extend(0, 0, 1);
  return survived.slice(1).map((count, i) => ({ failed: i + 1, survived: count, sets: choose(drives.length, i + 1) }));
}
