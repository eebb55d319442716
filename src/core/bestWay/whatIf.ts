import type { Plan } from "../document/plan";
import type { Act } from "./acts";
import { type Asked, searching } from "./bestWay";
import { boxesOf } from "./boxes";
import type { Instance } from "./instance";
import { type Label, wayOf } from "./label";
import { levelsFor } from "./levels";
import { isProvable } from "./provable";
import type { SoFar } from "./soFar";
import { type GrowthWish, instanceOf } from "./wish";

/** What is bought first: the month, and what is done with which sizes. */
export interface FirstPurchase {
  month: number;
  /** In bytes, the smallest first. */
  sizes: number[];
  kinds: string[];
}

/** What can be otherwise. */
export type Assumption =
  | "slower-fall"
  | "more-growth"
  | "less-growth"
  | "one-year-more"
  | "two-years-more"
  | "less-free"
  | "one-more-lost"
  | "one-bay-fewer"
  | "one-bay-more"
  | "retired"
  | "never-retired"
  | "no-limit"
  | "drive-dies";

/** The same wish with one thing otherwise. */
export interface Variation {
  of: Assumption;
  /** null where there is no way. */
  cents: number | null;
  first: FirstPurchase | null;
  /** Whether nothing is cheaper then; else it is the best that was found in time. */
  proved: boolean;
}

/** What moves the first purchase, and what does not. */
export interface WhatIf {
  variations: Variation[];
  /**
   * Between which yearly falls of prices the first purchase stays what it is; null at an end where it does so as far as
   * was looked, and as long as it is not known.
   */
  fall: { from: number | null; to: number | null } | null;
}

/** The sizes that an act buys, in bytes. */
function sizesBought(act: Act): number[] {
  if (!("bought" in act)) return [];
  if ("olds" in act) return act.olds.map(() => act.bought.bytes);
  return "bytes" in act.bought ? [act.bought.bytes] : act.bought.map(({ bytes }) => bytes);
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

/** How long each question is looked at: begun for one, it says when that is over. */
export type Patience = () => () => boolean;

/** Whether nothing costs less, or that there is no way, is proved of what was found. */
const isProvedBest = (instance: Instance, { aim }: Asked, { best, least }: SoFar): boolean =>
  least >= (best?.cents ?? Infinity) && (best === null || isProvable(instance, aim));

/** The best way that is found in time, and whether the search has ended by then. */
export function bestInTime(
  instance: Instance,
  asked: Asked,
  patience: Patience,
): { best: Label | null; proved: boolean; isEnded: boolean } {
  const steps = searching(instance, asked, boxesOf(instance));
  const isOver = patience();
  for (;;) {
    const { done, value } = steps.next();
    if (done) return { best: value.best, proved: isProvedBest(instance, asked, value), isEnded: true };
    if (isOver()) return { best: value.best, proved: false, isEnded: false };
  }
}

/** How far it is looked: prices that stay, and prices that fall by half a year. */
const LEAST_FALL = 0;
const MOST_FALL = 0.5;

/** How finely: to half a per cent. */
const FINE = 0.005;

/** What grows, grows by half more, or by half. */
const [MORE, LESS] = [1.5, 0.5];

const longer = (wish: GrowthWish, years: number): Partial<GrowthWish> => {
  const { demand, months } = wish;
  const grows = months > 1 ? ((demand[months - 1] ?? 0) - (demand[0] ?? 0)) / (months - 1) : 0;
  const more = Array.from({ length: years * 12 }, (_, i) => Math.round((demand[months - 1] ?? 0) + grows * (i + 1)));
  return { months: months + years * 12, demand: [...demand.slice(0, months), ...more] };
};

const faster = ({ demand }: GrowthWish, times: number): Partial<GrowthWish> => {
  const [now = 0] = demand;
  return { demand: demand.map((stored) => Math.round(now + (stored - now) * times)) };
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

/** Drives are retired after so many years where it is asked what that would change. */
export const RETIRED_AFTER = 7;

/** How much less is kept free where it is asked what that would change, as a share of the file system. */
export const LESS_FREE = 0.1;

/** Another plan, wish, or way to ask. */
interface Question {
  of: Assumption;
  plan?: Plan;
  wish?: Partial<GrowthWish>;
  asked?: Partial<Asked>;
  changed?: (instance: Instance) => Instance;
}

/** What can be otherwise of a wish. */
function questionsOf(plan: Plan, wish: GrowthWish, asked: Asked): Question[] {
  const { headroom, tolerance, bays, fallPerYear, retireAfterYears, pool: id } = wish;
  const pool = plan.pools.find((each) => each.id === id);
  const drives = pool?.groups.reduce((sum, group) => sum + group.drives.length, 0) ?? 0;
  const one = (when: boolean, question: Question): Question[] => (when ? [question] : []);
  return [
    { of: "more-growth", wish: faster(wish, MORE) },
    { of: "less-growth", wish: faster(wish, LESS) },
    { of: "one-year-more", wish: longer(wish, 1) },
    { of: "two-years-more", wish: longer(wish, 2) },
    ...one(fallPerYear > 0, { of: "slower-fall", wish: { fallPerYear: fallPerYear / 2 } }),
    ...one(headroom >= LESS_FREE, { of: "less-free", wish: { headroom: headroom - LESS_FREE } }),
    ...one(tolerance < 2, {
      of: "one-more-lost",
      wish: { tolerance: tolerance + 1, layouts: pool?.groups.length ? levelsFor(plan, pool) : wish.layouts },
    }),
    ...one(bays > drives, { of: "one-bay-fewer", wish: { bays: bays - 1 } }),
    {
      of: "one-bay-more",
      plan: { ...plan, box: { ...plan.box, bays: Math.max(plan.box.bays, bays + 1) } },
      wish: { bays: bays + 1 },
    },
    retireAfterYears === null
      ? { of: "retired", wish: { retireAfterYears: RETIRED_AFTER } }
      : { of: "never-retired", wish: { retireAfterYears: null } },
    ...one(asked.perYear !== null, { of: "no-limit", asked: { perYear: null } }),
    ...one(drives > 0, { of: "drive-dies", changed: withoutLargest }),
  ];
}

/** Between which yearly falls of prices the first purchase stays what it is at the one that is wished. */
function fallsOf(now: number, staysAt: (fall: number) => boolean): WhatIf["fall"] {
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
  return { from: changesBetween(now, LEAST_FALL), to: changesBetween(now, MOST_FALL) };
}

/**
 * What would become of the money and of the first purchase if something were otherwise: each thing that is assumed, one
 * at a time, and last the falls of prices at which the first purchase stays.
 *
 * @param plan the box from which it grows
 * @yields what is known so far
 */
export function* whatIf(
  plan: Plan,
  wish: GrowthWish,
  day: string,
  asked: Asked,
  patience: Patience,
): Generator<WhatIf, WhatIf> {
  const bestOf = (question: Omit<Question, "of">) => {
    const instance = instanceOf(question.plan ?? plan, { ...wish, ...question.wish }, day);
    return bestInTime(question.changed?.(instance) ?? instance, { ...asked, ...question.asked }, patience);
  };
  const known: WhatIf = { variations: [], fall: null };
  for (const question of questionsOf(plan, wish, asked)) {
    const { best, proved } = bestOf(question);
    const told = { of: question.of, cents: best?.cents ?? null, first: best && firstPurchase(best), proved };
    known.variations = [...known.variations, told];
    yield { ...known };
  }
  const base = bestOf({});
  const first = base.best && firstPurchase(base.best);
  const staysAt = (fallPerYear: number): boolean => {
    const { best } = bestOf({ wish: { fallPerYear } });
    return isSame(best && firstPurchase(best), first);
  };
  // What was not found in time says nothing of when it changes.
  return base.isEnded ? { ...known, fall: fallsOf(wish.fallPerYear, staysAt) } : known;
}
