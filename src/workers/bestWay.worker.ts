import { expose } from "comlink";
import { bestWaySteps, type Asked, lasts, walkedWay, type WaySetting } from "@/core/bestWay/bestWay";
import { boxesOf } from "@/core/bestWay/boxes";
import { frontSteps, type Second } from "@/core/bestWay/front";
import { HABITS, type Habit, habitOf } from "@/core/bestWay/habits";
import type { Label } from "@/core/bestWay/label";
import { type Told, toldOf, toldWay, type ToldWay } from "@/core/bestWay/told";
import { purchasesOf, type WhatIf, whatIf } from "@/core/bestWay/whatIf";
import { boxAfter, type GrowthWish, instanceOf } from "@/core/bestWay/wish";
import type { Plan } from "@/core/document/plan";

/** A wish for a plan: the box grows from where the plan's steps leave it. */
export interface GrowthAsked {
  document: Plan;
  wish: GrowthWish;
  asked: Asked;
  setting: Omit<WaySetting, "document">;
}

/** How far a search is. */
export interface GrowthProgress {
  /** By how much the best so far is at most dearer than the best possible, as a share; null while that is not known. */
  gap: number | null;
  /** How many boxes have been looked through. */
  boxes: number;
}

/** What a habit comes to: in cents, null where it does not last; and what is bought in which month, in bytes. */
export type HabitCents = Record<Habit, { cents: number | null; bought: { month: number; sizes: number[] }[] }>;

/** How often it is told how far it is, in milliseconds. */
const TELLS_EVERY = 150;

/** Of a front so many ways are walked and shown, at most. */
const MOST_SHOWN = 8;

/** A front is looked for no longer than this, in milliseconds. */
const MOST_TIME = 8000;

const work = {
  /**
   * The best way: told whenever a better one is found, how far the proof is now and then, and in the end for good. All
   * by one function, whose calls come in their order, and whose last one is waited for.
   */
  best: async (
    { document, wish, asked, setting: given }: GrowthAsked,
    onTold: (told: Told | GrowthProgress) => unknown,
  ): Promise<void> => {
    const setting = { ...given, document };
    const instance = instanceOf(boxAfter(document, given.day), wish, given.day);
    const steps = bestWaySteps(instance, asked, setting);
    let last: Label | null = null;
    let told = performance.now();
    for (;;) {
      const { done, value } = steps.next();
      if (done) return void (await onTold(toldOf(instance, wish.headroom, value, true)));
      const { best, least, boxes } = value;
      if (best && best !== last) {
        last = best;
        const way = walkedWay(instance, best, setting);
        await onTold(
          toldOf(instance, wish.headroom, { way, least, proved: false, breaksIn: null, enoughPerYear: null }, false),
        );
      }
      if (performance.now() - told < TELLS_EVERY) continue;
      told = performance.now();
      void onTold({ gap: best && least > 0 ? Math.max(0, 1 - least / best.cents) : null, boxes });
    }
  },
  /** Ways of which none is better in both money and exposed hours (or acts), as far as they are found in time. */
  front: ({ document, wish, setting: given }: GrowthAsked, second: Second): { ways: ToldWay[]; complete: boolean } => {
    const setting = { ...given, document };
    const instance = instanceOf(boxAfter(document, given.day), wish, given.day);
    const until = performance.now() + MOST_TIME;
    const steps = frontSteps(instance, second);
    for (;;) {
      const { done, value } = steps.next();
      if (!done && performance.now() < until) continue;
      const ways = value.ways.slice(0, MOST_SHOWN).flatMap((label) => {
        const way = walkedWay(instance, label, setting);
        return way && lasts(way) ? [toldWay(instance, wish.headroom, way)] : [];
      });
      return { ways, complete: value.complete && value.ways.length <= MOST_SHOWN };
    }
  },
  habits: ({ document, wish, setting: { day } }: GrowthAsked): HabitCents => {
    const instance = instanceOf(boxAfter(document, day), wish, day);
    const boxes = boxesOf(instance);
    const entries = HABITS.map((habit) => {
      const way = habitOf(instance, habit, boxes);
      return [habit, { cents: way?.cents ?? null, bought: way ? purchasesOf(way) : [] }] as const;
    });
    return Object.fromEntries(entries) as HabitCents;
  },
  whatIf: ({ document, wish, setting: { day } }: GrowthAsked): WhatIf => whatIf(boxAfter(document, day), wish, day),
};

export type GrowthWork = typeof work;

expose(work);
