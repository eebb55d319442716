import type { Bytes } from "../bytes/bytes";
import type { BoxRules, Drive, Group, LayoutId, Plan, Pool } from "../document/plan";

/** What is to be made least. */
export type Aim = "money" | "hours" | "acts";

/** A size that is sold, and what one drive of it costs. */
export interface Sold {
  bytes: Bytes;
  /** By month, in whole cents; Infinity where it is not sold yet. Never rises. */
  cents: Float64Array;
}

/** A drive of the pool as it is now. */
export interface Owned {
  drive: Drive;
  /** The month by which it must have been taken out; Infinity where there is none. */
  due: number;
}

/** A group of the pool as it is now. */
export interface OwnedGroup {
  group: Group;
  drives: readonly Owned[];
}

/** All that decides which ways there are, in months from now and bytes. */
export interface Instance {
  plan: Plan;
  pool: Pool;
  rules: BoxRules;
  /** How many months the box must last, 1 or more. */
  months: number;
  /** What its groups must hold together in each month; never falls. */
  needs: Float64Array;
  /** How many failed drives must be survived in each month; never falls. */
  tolerance: readonly number[];
  sold: readonly Sold[];
  /** Bays for the pool's drives, those that they have counted. */
  bays: number;
  groups: readonly OwnedGroup[];
  /** Levels that a group may be changed to, its own counted. */
  layouts: readonly LayoutId[];
  /** After how many months a bought drive must be taken out; Infinity where never. */
  life: number;
  /** What one running drive costs a year, in cents. */
  centsPerDriveYear: number;
  /** Whether mirrored pairs are always of equal drives. */
  equalPairs: boolean;
  /** How many cents the plan's currency has to its unit: 100 for most, 1 where it has none. */
  centsPerUnit: number;
}

/**
 * How many of its smallest units a currency has to its unit.
 *
 * @param currency its three letters; undefined where the plan does not say which it is
 * @example centsIn("EUR") // 100
 */
export function centsIn(currency: string | undefined): number {
  const style = { style: "currency", currency: currency ?? "EUR" } as const;
  return 10 ** (new Intl.NumberFormat("en", style).resolvedOptions().maximumFractionDigits ?? 2);
}

/** The month from which a box that holds so much holds too little; `months` where it always suffices. */
export function fullIn({ needs, months }: Pick<Instance, "needs" | "months">, data: Bytes): number {
  let [low, high] = [0, months];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((needs[middle] as number) > data) high = middle;
    else low = middle + 1;
  }
  return low;
}

/**
 * What a drive costs in a month: the price today, less what prices fall by in a year.
 *
 * @param fall of prices in a year, 0 to under 1
 * @returns whole cents
 * @example priceIn(16_000, 0.1, 12) // 14 400
 */
export const priceIn = (cents: number, fall: number, month: number): number =>
  Math.round(cents * (1 - fall) ** (month / 12));
