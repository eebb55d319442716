import type { Bytes } from "../bytes/bytes";
import type { Band } from "./band";

/** What of a drive the bands of its group use. */
export interface PartUsed {
  used: Bytes;
  /** What lies beside bands that it does not cover whole: unused until the pool is made anew. */
  beside: Bytes;
}

/**
 * How much of a drive the bands of its group use, and how much of it lies beside bands that end above it. What it has
 * above them all is neither: new bands can come there.
 *
 * @param room of the drive: its length, and where it begins, in bytes
 * @example partUsed(hybridOf4_4_8, { drive: "d9", length: 6 TB, systemReserve: 0 }) // { used: 4 TB, beside: 2 TB }
 */
export function partUsed(
  bands: readonly Band[],
  room: { drive: string; length: Bytes; systemReserve: Bytes },
): PartUsed {
  let [used, top] = [0, 0];
  for (const band of bands)
    for (const { drive, offset, length } of band.members) {
      // Every drive of a group has the same reserve, so that bands lie level.
      top = Math.max(top, offset + length - room.systemReserve);
      if (drive === room.drive) used += length + band.metadata;
    }
  return { used, beside: Math.max(0, Math.min(room.length, top) - used) };
}
