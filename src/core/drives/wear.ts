import type { Health } from "../document/plan";

/** What a drive counts of its own wear: sectors that are worn out, or that cannot be read. */
const badOf = ({ reallocatedSectors = 0, pendingSectors = 0 }: Pick<Health, "reallocatedSectors" | "pendingSectors">) =>
  reallocatedSectors + pendingSectors;

/**
 * By how many sectors a drive has become worse between its last two readings; 0 where there is but one, or it has not.
 *
 * @example worseBy({ state: "watch", reallocatedSectors: 24, earlier: { reallocatedSectors: 16 } }) // 8
 */
export const worseBy = (health: Health): number =>
  health.earlier === undefined ? 0 : Math.max(0, badOf(health) - badOf(health.earlier));

/**
 * A new reading of a drive's health with the counts of the one before it, so that it can be seen whether they grow. The
 * same reading taken over twice is one.
 *
 * @example withEarlier({ state: "watch", reallocatedSectors: 16 }, { state: "watch", reallocatedSectors: 24 }).earlier
 * // { reallocatedSectors: 16 }
 */
export function withEarlier(before: Health, now: Health): Health {
  const isSame = before.powerOnHours !== undefined && before.powerOnHours === now.powerOnHours;
  const { powerOnHours, reallocatedSectors, pendingSectors } = before;
  if (isSame) return before.earlier ? { ...now, earlier: before.earlier } : now;
  if (reallocatedSectors === undefined && pendingSectors === undefined) return now;
  return {
    ...now,
    earlier: {
      ...(powerOnHours === undefined ? {} : { powerOnHours }),
      ...(reallocatedSectors === undefined ? {} : { reallocatedSectors }),
      ...(pendingSectors === undefined ? {} : { pendingSectors }),
    },
  };
}
