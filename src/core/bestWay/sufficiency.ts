import { MiB, type Bytes } from "../bytes/bytes";
import { floorTo } from "../bytes/floorTo";
import type { BoxRules, Pool } from "../document/plan";
import { poolReserve } from "../ledger/ledger";
import { volumesOf, volumeShares } from "../ledger/volumes";

/**
 * How many bytes of files a pool can hold, head-room kept free, once its last volume has been grown to all that is
 * free: what the ledger then calls used and left together.
 *
 * @param data what the groups of the pool hold
 * @example filesIn(8e12, poolWithoutVolumes, 0.2, rules) // 6.4e12
 */
export function filesIn(data: Bytes, pool: Pick<Pool, "volumes">, headroom: number, rules: BoxRules): Bytes {
  const usable = data - poolReserve(data, rules);
  const last = pool.volumes.at(-1);
  if (!last) return usable - Math.round(usable * headroom);
  const others = pool.volumes.slice(0, -1);
  const { fileSystemBytes: _grown, ...volume } = last;
  const given = others.reduce((sum, each) => sum + each.bytes, 0);
  const grown = Math.max(
    last.bytes,
    given + last.bytes < usable ? last.bytes + floorTo(usable - given - last.bytes, MiB) : 0,
  );
  const volumes = [...others, { ...volume, bytes: Math.min(grown, Math.max(0, usable - given)) }];
  return volumesOf(usable, volumes).volumes.reduce((sum, { bytes }, i) => {
    const { capacity } = volumeShares({ ...(volumes[i] ?? volume), bytes });
    return sum + capacity - Math.round(capacity * headroom);
  }, 0);
}

/**
 * The least that the groups of a pool must hold for so many bytes of files, to the byte.
 *
 * @example dataFor(6.4e12, poolWithoutVolumes, 0.2, rules) // 8e12
 */
export function dataFor(files: Bytes, pool: Pick<Pool, "volumes">, headroom: number, rules: BoxRules): Bytes {
  if (files <= 0) return 0;
  let [low, high] = [0, 1];
  while (filesIn(high, pool, headroom, rules) < files) {
    low = high;
    high *= 2;
    if (high > Number.MAX_SAFE_INTEGER) return Infinity;
  }
  while (high - low > 1) {
    const middle = Math.floor((low + high) / 2);
    if (filesIn(middle, pool, headroom, rules) >= files) high = middle;
    else low = middle;
  }
  return high;
}
