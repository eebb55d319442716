import type { Band } from "../bands/band";
import { heightOf } from "../bands/band";
import { lossClauses } from "../bands/lossClauses";
import type { Bytes } from "../bytes/bytes";

/**
 * Data is lost when more than `tolerance` of `drives` have failed; and while just so many have, what is unreadable on
 * the others damages a file.
 */
export interface ReadClause {
  drives: readonly string[];
  tolerance: number;
  /** What of each drive is read to work out what a failed one held, in bytes, in the order of the drives. */
  reads: readonly Bytes[];
}

const keyOf = (drives: readonly string[], tolerance: number): string => `${tolerance}:${[...drives].sort().join(" ")}`;

/**
 * Clauses over the same drives with the same tolerance become one.
 *
 * @param join what of two that lie side by side, or are the same at two times, is read of a drive
 */
function merged(clauses: readonly ReadClause[], join: (a: Bytes, b: Bytes) => Bytes): ReadClause[] {
  const known = new Map<string, ReadClause>();
  for (const clause of clauses) {
    const key = keyOf(clause.drives, clause.tolerance);
    const old = known.get(key);
    const readOf = new Map(clause.drives.map((drive, i) => [drive, clause.reads[i] ?? 0]));
    known.set(
      key,
      old ? { ...old, reads: old.drives.map((drive, i) => join(old.reads[i] ?? 0, readOf.get(drive) ?? 0)) } : clause,
    );
  }
  return [...known.values()];
}

/**
 * What it takes to lose data of some bands, and what is read then. Chunks lie on all sets of drives, whatever bands
 * they are drawn as: there the loss of any drives beyond the tolerance loses some.
 *
 * @param chunked whether the bands are those of chunks
 * @example readClauses(bandsOfHybrid, false)
 * // one for each set of drives that a band lies on, with the heights of its bands added up
 */
export function readClauses(bands: readonly Band[], chunked: boolean): ReadClause[] {
  const each = bands.flatMap((band) =>
    heightOf(band) === 0
      ? []
      : lossClauses(band).map((clause) => ({ ...clause, reads: clause.drives.map(() => heightOf(band)) })),
  );
  if (!chunked) return merged(each, (a, b) => a + b);
  const reads = new Map<string, Bytes>();
  for (const clause of each)
    clause.drives.forEach((drive, i) => reads.set(drive, (reads.get(drive) ?? 0) + (clause.reads[i] ?? 0)));
  const [first] = each;
  return first ? [{ drives: [...reads.keys()], tolerance: first.tolerance, reads: [...reads.values()] }] : [];
}

/**
 * The clauses of what has two shapes at once, while it is rewritten from one to the other: data is lost where either
 * loses it.
 */
export const clausesOfBoth = (before: readonly ReadClause[], after: readonly ReadClause[]): ReadClause[] =>
  merged([...before, ...after], Math.max);

/**
 * The clauses without drives that are not there: each bears so many fewer. What bears less than none is lost.
 *
 * @returns the clauses that are left, those of them that no failure may befall any more for that reason, and whether
 * data is lost
 * @example clausesWithout(raid5OfThree, new Set(["d1"])).read // [{ drives: ["d2", "d3"], tolerance: 0, … }]
 */
export function clausesWithout(
  clauses: readonly ReadClause[],
  missing: ReadonlySet<string>,
): { clauses: ReadClause[]; read: ReadClause[]; lost: boolean } {
  const read: ReadClause[] = [];
  let lost = false;
  const left = clauses.map((clause) => {
    const there = clause.drives.flatMap((drive, i) => (missing.has(drive) ? [] : [i]));
    if (there.length === clause.drives.length) return clause;
    const tolerance = clause.tolerance - (clause.drives.length - there.length);
    lost ||= tolerance < 0;
    const without = {
      drives: there.flatMap((i) => clause.drives[i] ?? []),
      tolerance,
      reads: there.map((i) => clause.reads[i] ?? 0),
    };
    if (tolerance === 0) read.push(without);
    return without;
  });
  return { clauses: left.filter(({ drives, tolerance }) => drives.length > Math.max(0, tolerance)), read, lost };
}
