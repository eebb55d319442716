import { GONE } from "./slabs";
import { readGroup } from "./groups";
import type { SimBox, SimPool } from "./simulatedBox";
import { wanted } from "./wanted";

/** What came of reading all data of a pool back. */
export interface ReadBack {
  /** Blocks of data, and how many of them could not be had, or were wrong. */
  blocks: number;
  lost: number;
  /** Which blocks of which data. */
  lostOf: Map<number, Set<number>>;
}

/**
 * Reads all of a pool back, from copies and parity where need be, and holds every block against what it ought to be.
 *
 * @example readBack(box, box.pools[0]).lost // 0
 */
export function readBack(box: SimBox, pool: SimPool): ReadBack {
  const result: ReadBack = { blocks: 0, lost: 0, lostOf: new Map() };
  for (const group of pool.groups)
    readGroup(box, group, (data, at, byte) => {
      result.blocks += 1;
      if (byte !== GONE && byte === wanted(data, at)) return;
      result.lost += 1;
      const own = result.lostOf.get(data);
      if (own) own.add(at);
      else result.lostOf.set(data, new Set([at]));
    });
  return result;
}
