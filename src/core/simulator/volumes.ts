import { storedBlocks } from "./chunks";
import type { Extent, SimBox, SimPool } from "./simulatedBox";
import { dataBlocks } from "./slabs";

/** All data of a pool, piece by piece in the order in which its groups stand. */
export function piecesOf(pool: SimPool): Extent[] {
  return pool.groups.flatMap(({ slabs, chunks }) => [
    ...slabs.flatMap((slab): Extent[] => {
      if (!slab.independent) return [{ data: slab.data, from: 0, count: dataBlocks(slab) }];
      if (slab.code === "copies") return [{ data: slab.data, from: 0, count: slab.rows }];
      return slab.members.flatMap(({ data, from }) => (data === null ? [] : [{ data, from, count: slab.rows }]));
    }),
    ...(chunks ? [{ data: chunks.data, from: 0, count: storedBlocks(chunks) }] : []),
  ]);
}

/** What of some pieces nobody has yet, in their order. */
function notTaken(pieces: readonly Extent[], taken: readonly Extent[]): Extent[] {
  return pieces.flatMap((piece) => {
    const own = taken.filter(({ data }) => data === piece.data).sort((a, b) => a.from - b.from);
    const free: Extent[] = [];
    let at = piece.from;
    const end = piece.from + piece.count;
    for (const { from, count } of own) {
      if (from + count <= at || from >= end) continue;
      if (from > at) free.push({ data: piece.data, from: at, count: from - at });
      at = Math.max(at, from + count);
    }
    if (at < end) free.push({ data: piece.data, from: at, count: end - at });
    return free;
  });
}

/**
 * Gives each volume of a pool as many blocks as hold what is stored on it: those that it has stay its own, more come
 * from the room that nobody has. So it is known of every block whose it is.
 *
 * @example allot(box, pool) // once something has been stored, or a pool has grown
 */
export function allot(box: SimBox, pool: SimPool): void {
  const pieces = piecesOf(pool);
  for (const volume of pool.volumes) {
    const had = volume.extents.reduce((sum, { count }) => sum + count, 0);
    let wants = Math.round(volume.stored / box.block) - had;
    if (wants <= 0) continue;
    const others = pool.volumes.flatMap(({ extents }) => extents);
    for (const free of notTaken(pieces, others)) {
      const count = Math.min(wants, free.count);
      if (count > 0) volume.extents.push({ ...free, count });
      wants -= count;
      if (wants <= 0) break;
    }
  }
}
