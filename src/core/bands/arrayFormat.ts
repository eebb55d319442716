import type { Bytes } from "../bytes/bytes";
import { KiB, MiB } from "../bytes/bytes";
import { floorTo } from "../bytes/floorTo";
import type { ArrayFormat } from "../document/plan";
import type { Scheme } from "./band";

/** What an array uses of each of its members, in bytes. */
export interface ArrayFit {
  /** Before the data of each member. */
  metadata: Bytes;
  /** Data, copies or parity on each member; 0 when the members are too small for an array. */
  length: Bytes;
}

const CHUNK = 512 * KiB;
const MIRROR_ROUNDING = 64 * KiB;

/** What the used part of an array's members is rounded down to when it is made, in bytes. */
export function chunkOf(format: ArrayFormat, scheme: Pick<Scheme, "kind">): Bytes {
  if (format === "plain") return MiB;
  return scheme.kind === "mirror" ? MIRROR_ROUNDING : CHUNK;
}

/**
 * The kernel RAID driver's own rule (measured on 248 arrays, exact to the byte): start with 128 MiB and halve it while
 * it is more than the first member's size ÷ 1024, for striped levels not below two chunks; add 24 sectors and round up
 * to 1 MiB for the offset of the data; what is left of the smallest member is rounded down to the chunk.
 */
function linuxDataOffset(first: Bytes, striped: boolean): Bytes {
  const least = striped ? 2 * CHUNK : 0;
  let headroom = 128 * MiB;
  while (headroom > first / 1024 && headroom / 2 >= least && headroom > 1) headroom /= 2;
  return Math.ceil((headroom + 24 * 512) / MiB) * MiB;
}

function fitLinuxRaid(slices: readonly Bytes[], scheme: Scheme): ArrayFit {
  const metadata = linuxDataOffset(slices[0] ?? 0, scheme.kind !== "mirror");
  const length = floorTo(Math.min(...slices) - metadata, chunkOf("linux-raid", scheme));
  return { metadata: length > 0 ? metadata : 0, length };
}

/**
 * What an array over `slices` uses of each of them.
 *
 * @param slices the sizes of its members in bytes, in the order in which they are named; at least one
 * @example fitArray("plain", [4_000_787_030_016, 8_001_563_222_016], { kind: "mirror" })
 * // { metadata: 0, length: 4 000 786 153 472 }
 * @example fitArray("linux-raid", threeOf(4_000_787_030_016), { kind: "parity", parity: 1 })
 * // { metadata: 135 266 304, length: 4 000 651 411 456 }
 */
export function fitArray(format: ArrayFormat, slices: readonly Bytes[], scheme: Scheme): ArrayFit {
  switch (format) {
    case "plain":
      return { metadata: 0, length: floorTo(Math.min(...slices), MiB) };
    case "linux-raid":
      return fitLinuxRaid(slices, scheme);
  }
}

/**
 * What an array that uses all of every member takes of each: a zoned stripe (rounded down to the chunk) or a span (not
 * rounded; on a plain box to 1 MiB).
 *
 * @returns the metadata before the data of each drive, and the length used of each, in their order
 * @example fitUnequal("linux-raid", [400 MiB, 800 MiB, 1200 MiB], "stripe")
 * // { metadata: 2 MiB, lengths: [398 MiB, 798 MiB, 1198 MiB] }
 */
export function fitUnequal(
  format: ArrayFormat,
  slices: readonly Bytes[],
  kind: "stripe" | "span",
): { metadata: Bytes; lengths: Bytes[] } {
  if (format === "plain") return { metadata: 0, lengths: slices.map((slice) => floorTo(slice, MiB)) };
  const metadata = linuxDataOffset(slices[0] ?? 0, kind === "stripe");
  return { metadata, lengths: slices.map((slice) => floorTo(slice - metadata, kind === "stripe" ? CHUNK : 512)) };
}
