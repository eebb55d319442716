import { fileSystemCapacity } from "../box/capacities";
import { poolOf } from "../box/find";
import { usableOfPool } from "../box/figures";
import type { Bytes } from "../bytes/bytes";
import type { BoxRules, Plan, Pool } from "../document/plan";

/** What the box shows of a size once a step is done. */
export interface ExpectedSize {
  /** Of what: the pool, a volume or its file system, by name. */
  of: string;
  bytes: Bytes;
  /** The same before the step. */
  before: Bytes;
}

/** What changes of a pool's volumes, or of their file systems; nothing where none does. */
function changedVolume(pool: Pool, was: Pool | undefined): ExpectedSize | null {
  for (const volume of pool.volumes) {
    const old = was?.volumes.find(({ id }) => id === volume.id);
    if (!old || old === volume) continue;
    if (old.bytes !== volume.bytes) return { of: `the volume ${volume.name}`, bytes: volume.bytes, before: old.bytes };
    const [now, then] = [fileSystemCapacity(volume), fileSystemCapacity(old)];
    if (now !== then) return { of: `the files of ${volume.name}`, bytes: now, before: then };
  }
  return null;
}

/**
 * The size by which one sees that a step has done what it should: that of the pool where it changes, else of the
 * volume, else of its file system; that of the pool, which stays what it was, where its drives are others then.
 *
 * @returns null for a step that changes none of these
 * @example expectedSize(before, after, rules) // { of: "the volume X-rays", bytes: 8 000 000 000 000, … }
 */
export function expectedSize(before: Plan, after: Plan, rules: BoxRules): ExpectedSize | null {
  for (const pool of after.pools) {
    const was = poolOf(before, pool.id);
    if (was === pool) continue;
    const [is, then] = [usableOfPool(after, pool, rules), was ? usableOfPool(before, was, rules) : 0];
    const whole = { of: pool.name || "the pool", bytes: is, before: then };
    if (is !== then) return whole;
    const volume = changedVolume(pool, was);
    if (volume) return volume;
    if (pool.groups !== was?.groups) return whole;
  }
  return null;
}
