import { type Bytes } from "../bytes/bytes";
import type { Band } from "./band";

/** What a group takes of each of its drives, metadata included, in bytes. */
export function occupied(bands: readonly Band[]): Map<string, Bytes> {
  const sums = new Map<string, Bytes>();
  for (const band of bands)
    for (const member of band.members)
      sums.set(member.drive, (sums.get(member.drive) ?? 0) + member.length + band.metadata);
  return sums;
}

/** How far up from its reserve a drive is taken, in bytes: the end of its highest band. */
export function heightOn(bands: readonly Band[], drive: string, reserve: Bytes): Bytes {
  return Math.max(
    0,
    ...bands.flatMap((band) =>
      band.members.filter((member) => member.drive === drive).map((member) => member.offset + member.length - reserve),
    ),
  );
}
