import { withKept } from "../box/arrays";
import { bayOf } from "../drives/drive";
import { EXAMPLE_PRICES } from "../drives/priceList";
import { drivesOf } from "../box/find";
import { USUAL_AGE } from "../chance/failureRate";
import { rulesOfBox } from "../box/rulesOfBox";
import type { Bytes } from "../bytes/bytes";
import type { BoxRules, Drive, LayoutId, Plan, Pool } from "../document/plan";
import { layoutOf } from "../layouts/registry";
import { walkPlan } from "../walk/walkPlan";
import { monthsBetween } from "./months";
import { type Aim, centsIn, type Instance, priceIn, type Sold } from "./instance";
import { dataFor } from "./sufficiency";

/** A size on the price list. */
export interface Price {
  bytes: Bytes;
  /** Today, in the smallest unit of the plan's currency. */
  cents: number;
  /** The month from which it is sold; from now on where nothing is said. */
  from?: number;
}

/** What a box must hold, for how long, and what may be bought for it. */
export interface GrowthWish {
  /** The pool that is to grow; null for a box that has none yet. */
  pool: string | null;
  months: number;
  /** Bytes of files stored in each month from now on, head-room not included. */
  demand: readonly Bytes[];
  /** The share of the file system that stays free. */
  headroom: number;
  /** How many lost drives must be survived, whichever they are. */
  tolerance: number;
  layouts: readonly LayoutId[];
  /** For the pool's drives at most. */
  bays: number;
  prices: readonly Price[];
  /** What prices fall by in a year, 0 to under 1. */
  fallPerYear: number;
  aim: Aim;
  /** Drives are taken out after so many years; null where they stay until they fail. */
  retireAfterYears: number | null;
  /** What one running drive costs a year, in cents. */
  centsPerDriveYear: number;
  equalPairs: boolean;
}

/** What prices fall by in a year where nothing is said: an assumption. */
export const USUAL_FALL = 0.12;

/** The box after all steps of a plan: from there it grows. */
export const boxAfter = (document: Plan, day: string): Plan =>
  walkPlan(document, "TB", undefined, day).moments.at(-1)?.state.plan ?? document;

/**
 * What a plan's price list, or the invented examples where it has none, has of the kind of drive that a pool is made
 * of: hard disks where it has none yet.
 */
export function pricesOf(plan: Plan, pool: string | null): Price[] {
  const group = plan.pools.find(({ id }) => id === pool)?.groups[0];
  const like = plan.drives.find(({ id }) => id === group?.drives[0])?.medium ?? "hdd";
  const cents = centsIn(plan.currency);
  const listed = plan.prices && plan.prices.length > 0 ? plan.prices : EXAMPLE_PRICES;
  return listed
    .filter(({ medium }) => medium === like)
    .map(({ bytes, price }) => ({ bytes, cents: Math.round(price * cents) }));
}

/** The month by which a drive must have gone; Infinity where it need not. */
function dueOf(drive: Drive, wish: GrowthWish, day: string): number {
  if (wish.retireAfterYears === null) return Infinity;
  const age = drive.purchased ? monthsBetween(drive.purchased, day) : USUAL_AGE * 12;
  const due = Math.max(0, Math.round(wish.retireAfterYears * 12) - age);
  return due >= wish.months ? Infinity : due;
}

const sizesOf = ({ prices, fallPerYear, months }: GrowthWish): Sold[] =>
  [...prices]
    .sort((a, b) => a.bytes - b.bytes)
    .map(({ bytes, cents, from = 0 }) => ({
      bytes,
      cents: Float64Array.from({ length: months }, (_, month) =>
        month < from ? Infinity : priceIn(cents, fallPerYear, month),
      ),
    }));

/** A pool that has no drive yet, for a box that has none. */
const newPool = (plan: Plan): Pool => ({
  id: ["p1", "p2", "p3"].find((id) => !plan.pools.some((pool) => pool.id === id)) ?? "p-new",
  name: "",
  groups: [],
  spares: [],
  volumes: [],
});

/** How many bays the pool's drives can have: what others take of the box is left to them. */
function baysFor(plan: Plan, pool: Pool, wish: GrowthWish): number {
  const own = new Set(pool.groups.flatMap(({ drives }) => drives));
  const taken = plan.drives.filter((drive) => bayOf(drive) !== null && !own.has(drive.id)).length;
  return Math.min(wish.bays, plan.box.bays - taken);
}

/** What the pool's groups must hold in each month; what is stored now and then less does not count. */
function needsOf({ months, demand, headroom }: GrowthWish, pool: Pool, rules: BoxRules): Float64Array {
  const needs = new Float64Array(months);
  let [most, need] = [0, 0];
  for (let month = 0; month < months; month += 1) {
    const stored = demand[month] ?? 0;
    if (stored > most) need = Math.max(need, dataFor(stored, pool, headroom, rules));
    most = Math.max(most, stored);
    needs[month] = need;
  }
  return needs;
}

/**
 * A wish as an instance of the search: what is stored becomes what the pool's groups must hold, ages become months by
 * which drives must go.
 *
 * @param day the first day, as YYYY-MM-DD
 * @param rules those of the plan's box
 */
export function instanceOf(plan: Plan, wish: GrowthWish, day: string, rules: BoxRules = rulesOfBox(plan)): Instance {
  const pool = plan.pools.find(({ id }) => id === wish.pool) ?? newPool(plan);
  const needs = needsOf(wish, pool, rules);
  return {
    plan,
    pool,
    rules,
    months: wish.months,
    needs,
    tolerance: Array.from({ length: wish.months }, () => wish.tolerance),
    sold: sizesOf(wish),
    bays: baysFor(plan, pool, wish),
    groups: pool.groups.map((group) => {
      const { reach: _claimed, filled: _balanced, ...kept } = withKept(plan, group, rules);
      return {
        group: kept,
        drives: drivesOf(plan, group.drives).map((drive) => ({ drive, due: dueOf(drive, wish, day) })),
      };
    }),
    layouts: wish.layouts,
    life: wish.retireAfterYears === null ? Infinity : Math.round(wish.retireAfterYears * 12),
    centsPerDriveYear: wish.centsPerDriveYear,
    equalPairs: wish.equalPairs && wish.layouts.every((id) => layoutOf(id).stripe({}).copies === "all"),
    centsPerUnit: centsIn(plan.currency),
  };
}
