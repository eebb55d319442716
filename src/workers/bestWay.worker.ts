import { expose } from "comlink";
import { bestWaySteps, type Asked, lasts, walkedWay, type WaySetting } from "@/core/bestWay/bestWay";
import { boxesOf } from "@/core/bestWay/boxes";
import { byLayout, type LayoutWay } from "@/core/bestWay/byLayout";
import { frontSteps, type Second } from "@/core/bestWay/front";
import { HABITS, type Habit, habitOf } from "@/core/bestWay/habits";
import type { Label } from "@/core/bestWay/label";
import { type Told, toldOf, toldWay, type ToldWay } from "@/core/bestWay/told";
import { type Patience, type WhatIf, whatIf } from "@/core/bestWay/whatIf";
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
  /** What no way costs less than, in cents; null while that is not known. */
  least: number | null;
  /** How many boxes have been looked through. */
  boxes: number;
}

/** What habits come to. */
export interface HabitWays {
  /** null where it does not last. */
  ways: Record<Habit, ToldWay | null>;
  /** The month from which the box is too small if nothing is bought. */
  fullIn: number;
}

/** How often it is told how far it is, in milliseconds. */
const TELLS_EVERY = 150;

/** Of a front so many ways are walked and shown, at most. */
const MOST_SHOWN = 8;

/** A front is looked for no longer than this, in milliseconds. */
const MOST_TIME = 8000;

/** Each question beside the best way is looked at for so long at most, in milliseconds. */
const MOST_FOR_ONE = 2500;

const PATIENT: Patience = () => {
  const until = performance.now() + MOST_FOR_ONE;
  return () => performance.now() > until;
};

/** Tells what is known so far, each time before it goes on. */
async function alongside<T>(steps: Generator<T, T>, onTold: (known: T) => unknown): Promise<T> {
  for (;;) {
    const { done, value } = steps.next();
    if (done) return value;
    await onTold(value);
  }
}

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
      void onTold({ least: least > 0 ? least : null, boxes });
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
  habits: ({ document, wish, setting: given }: GrowthAsked): HabitWays => {
    const setting = { ...given, document };
    const instance = instanceOf(boxAfter(document, given.day), wish, given.day);
    const boxes = boxesOf(instance);
    const entries = HABITS.map((habit) => {
      const label = habitOf(instance, habit, boxes);
      const way = label && walkedWay(instance, label, setting);
      return [habit, way && toldWay(instance, wish.headroom, way)] as const;
    });
    return { ways: Object.fromEntries(entries) as HabitWays["ways"], fullIn: boxes.start.until };
  },
  whatIf: (asked: GrowthAsked, onTold: (known: WhatIf) => unknown): Promise<WhatIf> =>
    alongside(
      whatIf(boxAfter(asked.document, asked.setting.day), asked.wish, asked.setting.day, asked.asked, PATIENT),
      onTold,
    ),
  byLayout: (asked: GrowthAsked, onTold: (known: LayoutWay[]) => unknown): Promise<LayoutWay[]> =>
    alongside(
      byLayout(
        boxAfter(asked.document, asked.setting.day),
        asked.wish,
        asked.asked,
        { ...asked.setting, document: asked.document },
        PATIENT,
      ),
      onTold,
    ),
};

export type GrowthWork = typeof work;

expose(work);
