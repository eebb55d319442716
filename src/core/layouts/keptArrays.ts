import { chunkOf, type ArrayFit } from "../bands/arrayFormat";
import { heightOf, type Band } from "../bands/band";
import type { Bytes } from "../bytes/bytes";
import { floorTo } from "../bytes/floorTo";
import type { ArrayFormat, KeptArray } from "../document/plan";
import type { Room } from "../drives/room";

/** The used part that a claim would give an array, with what lies before its data; in bytes. */
const usedUpTo = ({ offset, chunk }: Pick<KeptArray, "offset" | "chunk">, slices: readonly Bytes[]): Bytes =>
  floorTo(Math.min(...slices) - offset, chunk);

/** How far up a kept array reaches, in bytes above the drives' reserve. */
export const endOfKept = ({ from, offset, used }: Pick<KeptArray, "from" | "offset" | "used">): Bytes =>
  from + offset + used;

/**
 * What an array that is kept uses of each of its members: what it used before, as far as they reach so high.
 *
 * @param slices the sizes of its members in bytes
 */
export const fitKept = (kept: KeptArray, slices: readonly Bytes[]): ArrayFit => ({
  metadata: kept.offset,
  length: Math.min(kept.used, usedUpTo(kept, slices)),
});

/**
 * What the arrays of a group keep from now on: what they kept already, and for a band that was made since, what it was
 * made with. Measured on the kernel's RAID driver: offset, chunk and used part stay through changes of level and width
 * and through replacements.
 *
 * @param bands the group's bands before the change
 * @param before what its arrays kept until now
 */
export function keptArrays(
  bands: readonly Band[],
  rooms: readonly Room[],
  format: ArrayFormat,
  before: readonly KeptArray[] = [],
): KeptArray[] {
  const made = bands.flatMap((band): KeptArray[] => {
    const [first] = band.members;
    const room = rooms.find((each) => each.drive === first?.drive);
    if (!first || !room) return [];
    const from = first.offset - band.metadata - room.systemReserve;
    if (before.some((each) => each.from === from)) return [];
    return [{ from, offset: band.metadata, chunk: chunkOf(format, band.scheme), used: heightOf(band) }];
  });
  return [...before, ...made].sort((a, b) => a.from - b.from);
}

/**
 * An array over whole drives after a claim: up to the smallest of all drives that stand in it, hot spares included,
 * and never smaller than it was. After a rewrite, which uses up some of the space before the data, it can be more: up
 * to what it would be if nothing lay before the data.
 *
 * @param slices the sizes of all drives that stand in it, in bytes
 * @example claimedArray({ from: 0, offset: 2 MiB, chunk: 512 KiB, used: 398 MiB }, [800 MiB, 800 MiB]) // used: 798 MiB
 */
export function claimedArray(kept: KeptArray, slices: readonly Bytes[]): KeptArray {
  const { usedMost: _open, ...known } = kept;
  const used = Math.max(kept.used, usedUpTo(kept, slices));
  const usedMost = kept.rewritten ? usedUpTo({ offset: 0, chunk: kept.chunk }, slices) : 0;
  return { ...known, used, ...(usedMost > used ? { usedMost } : {}) };
}
