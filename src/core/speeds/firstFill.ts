import type { Band } from "../bands/band";
import { isRedundant } from "../bands/isRedundant";
import { rebuildShare } from "../bands/workShare";
import type { Bytes } from "../bytes/bytes";
import type { BoxRules, Drive } from "../document/plan";
import type { Layout } from "../layouts/layout";
import type { Hours } from "../time/hours";
import { bandHours } from "./bandHours";
import type { Pace } from "./pace";

/** What a box does to make a new group redundant: until it has ended, the loss of any drive of the group loses data. */
export interface FirstFill {
  hours: Hours;
  /** What is read from and written to each drive, in bytes. */
  work: { drive: string; reads: Bytes; writes: Bytes }[];
}

/** What the first fill reads and writes of one member: a copy is written from another, parity from all the others. */
function workOn({ scheme, members }: Band, i: number): { reads: number; writes: number } {
  switch (scheme.kind) {
    case "mirror":
      return i === 0 ? { reads: 1, writes: 0 } : { reads: 0, writes: 1 };
    case "striped-mirrors":
      // Round a ring of an odd count, each holds one copy that is read and one that is written.
      if (members.length % 2 === 1) return { reads: 0.5, writes: 0.5 };
      return i % 2 === 0 ? { reads: 1, writes: 0 } : { reads: 0, writes: 1 };
    case "dedicated-parity":
      return i < members.length - scheme.parity ? { reads: 1, writes: 0 } : { reads: 0, writes: 1 };
    default:
      return { reads: 1, writes: 1 };
  }
}

/**
 * The first fill of a new group: a mirror's copy, or all that parity is worked out from and written. A box that copies
 * only what is used has nothing to fill in an empty group, and what is given out in chunks is redundant as it is
 * written.
 *
 * @param bands of the group as it is made
 * @returns null where nothing is filled, or nothing is redundant
 * @example firstFillOf(layout, bandsOfThree4TB, drives, rules)?.hours.expected // 12.3: 4 TB at 0.6 of 150 MB/s
 */
export function firstFillOf(
  layout: Pick<Layout, "chunked">,
  bands: readonly Band[],
  drives: readonly Drive[],
  rules: Pick<BoxRules, "firstFill"> & Pace,
): FirstFill | null {
  const filled = bands.filter(isRedundant);
  if (rules.firstFill !== "at-once" || layout.chunked || filled.length === 0) return null;
  const work = new Map<string, { drive: string; reads: Bytes; writes: Bytes }>();
  for (const band of filled)
    band.members.forEach(({ drive, length }, i) => {
      const so = work.get(drive) ?? { drive, reads: 0, writes: 0 };
      const { reads, writes } = workOn(band, i);
      so.reads += Math.round(length * reads);
      so.writes += Math.round(length * writes);
      work.set(drive, so);
    });
  return { hours: bandHours(filled, drives, rebuildShare, rules), work: [...work.values()] };
}
