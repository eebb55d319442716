import type { Group, Plan, Pool } from "../document/plan";
import { goneIn } from "./gone";

/** The group that a drive belongs to, with its pool, or null. */
export function groupOfDrive(plan: Plan, drive: string): { pool: Pool; group: Group } | null {
  for (const pool of plan.pools) {
    const group = pool.groups.find((each) => each.drives.includes(drive));
    if (group) return { pool, group };
  }
  return null;
}

/** What a drive does beside a pool, or null when it is a member or belongs to none. */
export function roleOfDrive(
  plan: Plan,
  drive: string,
): { pool: Pool; role: "hot spare" | "read cache" | "write log" } | null {
  for (const pool of plan.pools) {
    if (pool.spares.includes(drive) || pool.groups.some((group) => group.spares?.includes(drive)))
      return { pool, role: "hot spare" };
    const helper = pool.helpers?.find((each) => each.drive === drive);
    if (helper) return { pool, role: helper.role === "read-cache" ? "read cache" : "write log" };
  }
  return null;
}

/** Whether a drive does anything in the box: is in a group, a spare, a cache. */
export function isFree(plan: Plan, drive: string): boolean {
  return !plan.pools.some(
    (pool) =>
      pool.spares.includes(drive) ||
      pool.helpers?.some((helper) => helper.drive === drive) ||
      pool.groups.some((group) => group.drives.includes(drive) || group.spares?.includes(drive)),
  );
}

/**
 * Whether a drive can be put to use: it does nothing in the box, and has not failed.
 *
 * @example isAvailable(plan, "d5") // false for a failed drive on the shelf
 */
export const isAvailable = (plan: Plan, drive: string): boolean => isFree(plan, drive) && !goneIn(plan).has(drive);
