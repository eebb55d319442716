import type { Plan } from "../document/plan";
import { groupedBy } from "../records/groupedBy";
import type { Act } from "./acts";
import { boxesOf } from "./boxes";
import type { Instance } from "./instance";
import { type Label, wayOf } from "./label";
import { cheapestWay } from "./search";
import { type GrowthWish, instanceOf } from "./wish";

/** What is bought first: the month, and what is done with which sizes. */
export interface FirstPurchase {
  month: number;
  /** In bytes, the smallest first. */
  sizes: number[];
  kinds: string[];
}

/** The same wish with one thing otherwise. */
export interface Variation {
  of: "slower-fall" | "more-growth" | "one-year-more" | "two-years-more" | "drive-dies";
  /** null where there is no way. */
  cents: number | null;
  first: FirstPurchase | null;
}

/** What moves the first purchase, and what does not. */
export interface WhatIf {
  variations: Variation[];
  /**
   * Between which yearly falls of prices the first purchase stays what it is; null at an end where it does so as far as
   * was looked.
   */
  fall: { from: number | null; to: number | null };
}

/** The sizes that an act buys, in bytes. */
function sizesBought(act: Act): number[] {
  if (!("bought" in act)) return [];
  if ("olds" in act) return act.olds.map(() => act.bought.bytes);
  return "bytes" in act.bought ? [act.bought.bytes] : act.bought.map(({ bytes }) => bytes);
}

/** What a way buys, month by month, in bytes. */
export function purchasesOf(way: Label): { month: number; sizes: number[] }[] {
  const months = [...groupedBy(wayOf(way), ({ month }) => month)];
  return months.map(([month, acts]) => ({ month, sizes: acts.flatMap(({ act }) => sizesBought(act)) }));
}

/** What a way buys first, null where it buys nothing. */
export function firstPurchase(best: Label): FirstPurchase | null {
  const acts = wayOf(best);
  const [first] = acts;
  if (!first) return null;
  const batch = acts.filter(({ month }) => month === first.month).map(({ act }) => act);
  const sizes = batch.flatMap(sizesBought);
  return { month: first.month, sizes: sizes.sort((a, b) => a - b), kinds: batch.map(({ kind }) => kind).sort() };
}

const isSame = (one: FirstPurchase | null, other: FirstPurchase | null): boolean =>
  JSON.stringify(one && [one.sizes, one.kinds]) === JSON.stringify(other && [other.sizes, other.kinds]);

/** So many boxes are looked through for each question; what is not proved by then is told as it is. */
const MOST_BOXES = 25_000;

function bestOf(instance: Instance): Label | null {
  const steps = cheapestWay(instance, boxesOf(instance));
  for (;;) {
    const { done, value } = steps.next();
    if (done || value.boxes > MOST_BOXES) return value.best;
  }
}

/** How far it is looked: prices that stay, and prices that fall by half a year. */
const LEAST_FALL = 0;
const MOST_FALL = 0.5;

/** How finely: to half a per cent. */
const FINE = 0.005;

/** How much more is stored: what grows, grows by half more. */
const MORE = 1.5;

const longer = (wish: GrowthWish, years: number): GrowthWish => {
  const { demand, months } = wish;
  const grows = months > 1 ? ((demand[months - 1] ?? 0) - (demand[0] ?? 0)) / (months - 1) : 0;
  const more = Array.from({ length: years * 12 }, (_, i) => Math.round((demand[months - 1] ?? 0) + grows * (i + 1)));
  return { ...wish, months: months + years * 12, demand: [...demand.slice(0, months), ...more] };
};

const faster = (wish: GrowthWish): GrowthWish => {
  const [now = 0] = wish.demand;
  return { ...wish, demand: wish.demand.map((stored) => Math.round(now + (stored - now) * MORE)) };
};

/** The instance with its largest drive gone: another must be there at once. */
function withoutLargest(instance: Instance): Instance {
  const largest = Math.max(0, ...instance.groups.flatMap(({ drives }) => drives.map(({ drive }) => drive.bytes)));
  let isDone = false;
  return {
    ...instance,
    groups: instance.groups.map((group) => ({
      ...group,
      drives: group.drives.map((each) => {
        if (isDone || each.drive.bytes !== largest) return each;
        isDone = true;
        return { ...each, due: 0 };
      }),
    })),
  };
}

/**
 * What would become of the first purchase if something were otherwise: prices fell more slowly or faster, more were
 * stored, the box had to last longer, its largest drive died today.
 */
export function whatIf(plan: Plan, wish: GrowthWish, day: string): WhatIf {
  const withWish = (other: GrowthWish) => instanceOf(plan, other, day);
  const base = bestOf(withWish(wish));
  const first = base && firstPurchase(base);
  const told = (of: Variation["of"], best: Label | null): Variation => ({
    of,
    cents: best?.cents ?? null,
    first: best && firstPurchase(best),
  });
  const questions: [Variation["of"], () => Instance][] = [
    ["slower-fall", () => withWish({ ...wish, fallPerYear: wish.fallPerYear / 2 })],
    ["more-growth", () => withWish(faster(wish))],
    ["one-year-more", () => withWish(longer(wish, 1))],
    ["two-years-more", () => withWish(longer(wish, 2))],
    ["drive-dies", () => withoutLargest(withWish(wish))],
  ];
  const variations = questions.map(([of, instance]) => told(of, bestOf(instance())));
  const staysAt = (fall: number): boolean => {
    const best = bestOf(withWish({ ...wish, fallPerYear: fall }));
    return isSame(best && firstPurchase(best), first);
  };
  /** Where it changes between a fall at which it stays and one at which it may not. */
  const changesBetween = (stays: number, other: number): number | null => {
    if (staysAt(other)) return null;
    let [same, changed] = [stays, other];
    while (Math.abs(changed - same) > FINE) {
      const middle = (same + changed) / 2;
      if (staysAt(middle)) same = middle;
      else changed = middle;
    }
    return same;
  };
  const from = changesBetween(wish.fallPerYear, LEAST_FALL);
  return { variations, fall: { from, to: changesBetween(wish.fallPerYear, MOST_FALL) } };
}
