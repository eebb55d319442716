import type { Bytes } from "../bytes/bytes";
import { KiB } from "../bytes/bytes";
import { floorTo } from "../bytes/floorTo";
import { heightOf, type Band } from "./band";

/** What the lengths of a band hold. The four sum to height × members. All in bytes. */
export interface BandContents {
  data: Bytes;
  copies: Bytes;
  parity: Bytes;
  /** A chunk that has no partner, where an odd number of chunks is to be paired. */
  rounding: Bytes;
}

/** What striped mirrors round to: a chunk of the kernel's RAID driver, which divides every other unit in use. */
const STRIPE_CHUNK = 512 * KiB;

/**
 * How much of a band is data, copies and parity (the domain's formulas for one band of n members of height h:
 * stripe n·h, mirror h, striped mirrors n·h/2 in whole chunks, parity (n − p)·h).
 *
 * @throws RangeError for a parity band that has no more members than parity blocks: no layout makes one
 * @example contentsOf({ scheme: { kind: "parity", parity: 1 }, members: threeOf(4 TB), metadata: 0 })
 * // { data: 8 TB, copies: 0, parity: 4 TB }
 */
export function contentsOf(band: Band): BandContents {
  const height = heightOf(band);
  const count = band.members.length;
  switch (band.scheme.kind) {
    case "stripe":
    case "single":
      return { data: count * height, copies: 0, parity: 0, rounding: 0 };
    case "mirror":
      return { data: height, copies: (count - 1) * height, parity: 0, rounding: 0 };
    case "striped-mirrors": {
      const data = floorTo((count * height) / 2, STRIPE_CHUNK);
      return { data, copies: data, parity: 0, rounding: count * height - 2 * data };
    }
    case "chunk-parity":
    case "dedicated-parity":
    case "parity": {
      const { parity } = band.scheme;
      if (count <= parity) throw new RangeError(`A band over ${count} drives cannot hold ${parity} parity blocks.`);
      return { data: (count - parity) * height, copies: 0, parity: parity * height, rounding: 0 };
    }
  }
}

/** The usable bytes of some bands together. */
export function usableOf(bands: readonly Band[]): Bytes {
  return bands.reduce((sum, band) => sum + contentsOf(band).data, 0);
}
