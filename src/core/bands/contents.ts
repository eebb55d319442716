import type { Bytes } from "../bytes/bytes";
import { heightOf, type Band } from "./band";

/** What the lengths of a band hold. The three sum to height × members. All in bytes. */
export interface BandContents {
  data: Bytes;
  copies: Bytes;
  parity: Bytes;
}

/**
 * How much of a band is data, copies and parity (the domain's formulas for one band of n members of height h:
 * stripe n·h, mirror h, parity (n − p)·h).
 *
 * @throws RangeError for a parity band that has no more members than parity blocks: no layout makes one
 * @example contentsOf({ scheme: { kind: "parity", parity: 1 }, members: threeOf(4 TB), metadata: 0 }) // { data: 8 TB, copies: 0, parity: 4 TB }
 */
export function contentsOf(band: Band): BandContents {
  const height = heightOf(band);
  const count = band.members.length;
  switch (band.scheme.kind) {
    case "stripe":
      return { data: count * height, copies: 0, parity: 0 };
    case "mirror":
      return { data: height, copies: (count - 1) * height, parity: 0 };
    case "parity": {
      const { parity } = band.scheme;
      if (count <= parity) throw new RangeError(`A band of ${count} members cannot hold ${parity} parity blocks.`);
      return { data: (count - parity) * height, copies: 0, parity: parity * height };
    }
  }
}

/** The usable bytes of some bands together. */
export function usableOf(bands: readonly Band[]): Bytes {
  return bands.reduce((sum, band) => sum + contentsOf(band).data, 0);
}
