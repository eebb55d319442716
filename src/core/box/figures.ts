import type { Band } from "../bands/band";
import { usableOf } from "../bands/contents";
import { type Bytes } from "../bytes/bytes";
import type { BoxRules, Drive, Group, Plan, Pool } from "../document/plan";
import { type Fate, fateOf } from "../failures/fate";
import { lostOf } from "../failures/lostOf";
import { toleranceOf } from "../failures/tolerance";
import { layOutGroup } from "../layouts/layOutGroup";
import { poolReserve } from "../ledger/ledger";
import { drivesOf } from "./find";
import { goneIn, goneOf } from "./gone";

export interface GroupFigures {
  rules: BoxRules;
  /** The drives of the plan that it was last asked for. */
  all: readonly Drive[];
  drives: readonly Drive[];
  bands: Band[];
  usable: Bytes;
  tolerance: number;
}

export const known = new WeakMap<Group, GroupFigures>();

/** The bands of a group with what follows from them; kept for as long as the group and its drives are the same. */
export function figuresOf(plan: Plan, group: Group, rules: BoxRules): GroupFigures {
  const old = known.get(group);
  if (old && old.rules === rules && old.all === plan.drives) return old;
  const drives = drivesOf(plan, group.drives);
  if (
    old &&
    old.rules === rules &&
    old.drives.length === drives.length &&
    old.drives.every((drive, i) => drive.bytes === drives[i]?.bytes && drive.id === drives[i]?.id)
  ) {
    old.all = plan.drives;
    return old;
  }
  const bands = layOutGroup(group, drives, rules);
  const made = { rules, all: plan.drives, drives, bands, usable: usableOf(bands), tolerance: toleranceOf(bands) };
  known.set(group, made);
  return made;
}

export const bandsOfGroup = (plan: Plan, group: Group, rules: BoxRules): Band[] => figuresOf(plan, group, rules).bands;

export const bandsOfPool = (plan: Plan, pool: Pool, rules: BoxRules): Band[] =>
  pool.groups.flatMap((group) => bandsOfGroup(plan, group, rules));

export const usableOfGroup = (plan: Plan, group: Group, rules: BoxRules): Bytes => figuresOf(plan, group, rules).usable;

/** What the groups of a pool hold together, what the box then keeps of the pool included. */
export const dataOfPool = (plan: Plan, pool: Pool, rules: BoxRules): Bytes =>
  pool.groups.reduce((sum, group) => sum + usableOfGroup(plan, group, rules), 0);

/**
 * What becomes of a pool with the drives that have failed or are missing in fact, and with others besides.
 *
 * @param more drives that are missing meanwhile, or would be
 * @example fateOfPool(plan, pool, rules, ["d3"]).kind // "lost" where d2 of a RAID 5 has failed already
 */
export const fateOfPool = (plan: Plan, pool: Pool, rules: BoxRules, more: Iterable<string> = []): Fate =>
  fateOf(bandsOfPool(plan, pool, rules), new Set([...goneIn(plan), ...more]));

/** What a pool holds with all its drives there. */
export function usableIfWhole(plan: Plan, pool: Pool, rules: BoxRules): Bytes {
  const data = dataOfPool(plan, pool, rules);
  return data - poolReserve(data, rules);
}

/** What a pool holds that can be read or restored, as the prediction says it: less what is lost with drives. */
export function usableOfPool(plan: Plan, pool: Pool, rules: BoxRules): Bytes {
  const usable = usableIfWhole(plan, pool, rules);
  if (goneOf(plan, pool).length === 0) return usable;
  return usable - lostOf(bandsOfPool(plan, pool, rules), fateOfPool(plan, pool, rules), usable);
}

/** How many failed drives a pool survives, whichever; 0 for one that cannot be made. */
export function toleranceOfPool(plan: Plan, pool: Pool, rules: BoxRules): number {
  const each = pool.groups.map((group) => figuresOf(plan, group, rules));
  return each.length === 0 || each.some((one) => one.bands.length === 0)
    ? 0
    : Math.min(...each.map((one) => one.tolerance));
}
