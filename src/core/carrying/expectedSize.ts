import { fileSystemCapacity } from "../box/capacities";
import { poolOf, poolOfGroup } from "../box/find";
import { usableOfPool } from "../box/figures";
import type { Bytes } from "../bytes/bytes";
import type { BoxRules, Plan, Step } from "../document/plan";

/** What the box shows of a size once a step is done. */
export interface ExpectedSize {
  /** Of what: the pool, a volume or its file system, by name. */
  of: string;
  bytes: Bytes;
  /** The same before the step. */
  before: Bytes;
  pool: string;
}

/** The pool that a step names, if it names one. */
function poolOfStep(step: Step, plan: Plan) {
  if ("pool" in step) return poolOf(plan, step.pool);
  return "group" in step ? poolOfGroup(plan, step.group) : undefined;
}

/**
 * The size by which one sees that a step has done what it should: that of the pool where it changes, else of the
 * volume, else of its file system; otherwise that of the pool, which then stays what it was.
 *
 * @returns null for a step that changes no pool and names none
 * @example expectedSize(growVolumeStep, before, after, rules) // { of: "the volume X-rays", bytes: 8 000 000 000 000, … }
 */
export function expectedSize(step: Step, before: Plan, after: Plan, rules: BoxRules): ExpectedSize | null {
  const changed = after.pools.filter((pool) => pool !== poolOf(before, pool.id));
  const pools = changed.length > 0 ? changed : [poolOfStep(step, after) ?? poolOfStep(step, before)];
  for (const pool of pools) {
    if (!pool) continue;
    const was = poolOf(before, pool.id);
    const usable = usableOfPool(after, pool, rules);
    const usableBefore = was ? usableOfPool(before, was, rules) : 0;
    const whole = { of: pool.name || "the pool", bytes: usable, before: usableBefore, pool: pool.id };
    if (usable !== usableBefore) return whole;
    for (const volume of pool.volumes) {
      const old = was?.volumes.find(({ id }) => id === volume.id);
      if (!old || old === volume) continue;
      if (old.bytes !== volume.bytes)
        return { of: `the volume ${volume.name}`, bytes: volume.bytes, before: old.bytes, pool: pool.id };
      const [now, then] = [fileSystemCapacity(volume), fileSystemCapacity(old)];
      if (now !== then) return { of: `the files of ${volume.name}`, bytes: now, before: then, pool: pool.id };
    }
    return whole;
  }
  return null;
}
