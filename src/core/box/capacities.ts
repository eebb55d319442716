import { isDraft } from "immer";
import { MiB, type Bytes } from "../bytes/bytes";
import { floorTo } from "../bytes/floorTo";
import type { BoxRules, Plan, Pool } from "../document/plan";
import { volumeShares } from "../ledger/volumes";
import { usableOfPool } from "./figures";

/** What pool, volumes and file systems hold at a moment, in bytes. */
export interface Capacities {
  pool: Bytes;
  volume: Bytes;
  fileSystem: Bytes;
}

export function capacitiesOf(plan: Plan, rules: BoxRules): Capacities {
  let [pool, volume, fileSystem] = [0, 0, 0];
  for (const each of plan.pools) {
    // On a landing place nothing is kept.
    if (each.landsFor !== undefined) continue;
    const usable = usableOfPool(plan, each, rules);
    pool += usable;
    // A pool without volumes is seen as one that is given out whole.
    if (each.volumes.length === 0) {
      volume += usable;
      fileSystem += usable;
    }
    for (const one of each.volumes) {
      volume += one.bytes;
      fileSystem += fileSystemCapacity(one);
    }
  }
  return { pool, volume, fileSystem };
}

/** What is stored in a pool, as far as it is known: what its volumes use; all that they have where that is not said. */
export function storedIn(pool: Pool): Bytes {
  return pool.volumes.reduce((sum, volume) => sum + Math.min(volume.bytes, volume.usedBytes ?? volume.bytes), 0);
}

/**
 * The share of a pool's space that is stored, of which a box that copies only what is used copies so much of every
 * drive: the bytes stay the same when the pool gets larger. All of it where no volume says.
 *
 * @param data what the groups of the pool hold together, in bytes
 */
export const usedShare = (pool: Pool, data: Bytes): number =>
  pool.volumes.length === 0 ? 1 : Math.min(1, storedIn(pool) / Math.max(1, data));

/** What can still be given to a volume of a pool, together with what it has, as the box accepts it: rounded down. */
export function largestVolume(plan: Plan, pool: Pool, volume: string, rules: BoxRules): Bytes {
  const others = pool.volumes.filter((each) => each.id !== volume).reduce((sum, each) => sum + each.bytes, 0);
  return Math.max(0, floorTo(usableOfPool(plan, pool, rules) - others, MiB));
}

/** What is known of volumes; the states of a plan share those that no step has changed. */
const capacityOf = new WeakMap<Pool["volumes"][number], Bytes>();

/** What folders see of a volume: its file system less its own structures, and what is kept of it. */
export function fileSystemCapacity(volume: Pool["volumes"][number]): Bytes {
  // What may still be changed, as within a step, is worked out again.
  if (isDraft(volume)) return volumeShares(volume).capacity;
  const known = capacityOf.get(volume) ?? volumeShares(volume).capacity;
  capacityOf.set(volume, known);
  return known;
}
