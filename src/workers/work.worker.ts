import { expose } from "comlink";
import type { Bytes } from "@/core/bytes/bytes";
import { type ChoiceRange, rangeOfChoice } from "@/core/compare/choiceChance";
import { predictPool } from "@/core/prediction/predictPool";
import { compareSteps, poolOf, type Choice, type Comparison, type CompareRequest } from "@/core/compare/compare";
import { nearestChange, type NearestChange } from "@/core/compare/nearestChange";
import type { Needs } from "@/core/compare/needs";
import { bestBuySteps, type BestBuys } from "@/core/nextDrive/bestBuys";
import { bestCurve, type PlacedCurve } from "@/core/nextDrive/sizeCurve";
import type { UnitFamily } from "@/core/bytes/formatBytes";
import type { Plan, PlanCalendar, PricedDrive } from "@/core/document/plan";
import type { Spread } from "@/core/chance/inputs";
import { chanceOfSequence } from "@/core/sequences/chanceOfSequence";
import { walkPlan } from "@/core/walk/walkPlan";
import { sequenceOf } from "@/core/sequences/registry";
import type { SequenceId, Wish } from "@/core/sequences/sequence";
import { trySequence, type TriedSequence } from "@/core/sequences/tried";

/** Runs steps to their end, telling how far they are now and then. */
function run<T>(steps: Generator<number, T>, onProgress: (share: number) => void): T {
  let told = 0;
  for (;;) {
    const { done, value } = steps.next();
    if (done) return value;
    if (value - told < 0.05) continue;
    told = value;
    onProgress(value);
  }
}

/** What the worker does. It is stopped by ending it: nothing is kept in it. */
const work = {
  compare: (request: CompareRequest, onProgress: (share: number) => void): Comparison =>
    run(compareSteps(request), onProgress),
  /** For each choice the nearest change that makes it fit, or null. */
  nearestChanges: (
    choices: (Pick<Choice, "id" | "groups"> & { leastBytes?: Bytes })[],
    needs: Needs,
    sizes: Bytes[],
    freeBays: number,
    { drives, rules, network, own, chances }: CompareRequest,
  ): Record<string, NearestChange | null> =>
    Object.fromEntries(
      choices.map((choice) => [
        choice.id,
        nearestChange(choice, needs, sizes, freeBays, drives, rules, network, own, chances),
      ]),
    ),
  /** The ranges of the chances of choices. */
  chanceRanges: (
    choices: readonly Pick<Choice, "id" | "groups">[],
    { drives, rules, own, chances }: CompareRequest,
  ): Record<string, ChoiceRange> => {
    const driveOf = new Map(drives.map((drive) => [drive.id, drive]));
    if (!chances) return {};
    return Object.fromEntries(
      choices.map(({ id, groups }) => {
        const pool = predictPool(poolOf(groups), driveOf, rules, "", "TB", undefined, own);
        return [id, rangeOfChoice(pool, driveOf, chances)];
      }),
    );
  },
  bestBuys: (
    plan: Plan,
    poolId: string,
    prices: PricedDrive[],
    onProgress: (share: number) => void,
  ): BestBuys | null => {
    const pool = plan.pools.find((each) => each.id === poolId);
    return pool ? run(bestBuySteps(plan, pool, prices), onProgress) : null;
  },
  /** What one more drive would bring to a pool, where it brings most. */
  bestCurve: (plan: Plan, poolId: string): PlacedCurve | null => {
    const pool = plan.pools.find((each) => each.id === poolId);
    return pool ? bestCurve(plan, pool) : null;
  },
  /** A ready-made sequence put into a plan at a moment, on trial. */
  trySequence: (
    id: SequenceId,
    wish: Wish,
    { document, at, today, family }: { document: Plan; at: number; today: string; family: UnitFamily },
    calendar: PlanCalendar,
  ): TriedAsAsked => {
    const place = { document, at, today, walked: walkPlan(document, family, undefined, today) };
    const result = trySequence(sequenceOf(id), wish, place, calendar);
    return { id, wish, result, chance: result.ok ? chanceOfSequence(place, result.tried) : null };
  },
};

/** A ready-made sequence that was asked for, worked out. */
export interface TriedAsAsked {
  id: SequenceId;
  wish: Wish;
  result: TriedSequence;
  /** How likely its steps cost something, of 1; null where it cannot be done. */
  chance: Spread | null;
}

export type Work = typeof work;

expose(work);
