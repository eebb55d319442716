import { proxy, type Remote } from "comlink";
import type { Told, ToldWay } from "@/core/bestWay/told";
import type { LayoutWay } from "@/core/bestWay/byLayout";
import type { WhatIf } from "@/core/bestWay/whatIf";
import type { GrowthAsked, GrowthProgress, GrowthWork, HabitWays } from "./bestWay.worker";
import { inWorker, type WorkerJob } from "./inWorker";

export type { GrowthAsked, GrowthProgress, HabitWays } from "./bestWay.worker";

export type GrowthJob<T> = WorkerJob<T>;

const begun = <T>(ask: (work: Remote<GrowthWork>) => Promise<T>): GrowthJob<T> =>
  inWorker<GrowthWork, T>(
    new Worker(new URL("./bestWay.worker.ts", import.meta.url), { type: "module" }),
    ask,
    "The best way could not be worked out in this browser.",
  );

/**
 * Looks for the best way to grow off the main thread.
 *
 * @param onTold told each better way as it is found, how far the proof is, and in the end what was found
 */
export const startBestWay = (asked: GrowthAsked, onTold: (told: Told | GrowthProgress) => void): GrowthJob<void> =>
  begun((work) => work.best(asked, proxy(onTold)));

/** What stands beside the best way: the front, habits, what would change it, and what other layouts cost. */
export const startFront = (asked: GrowthAsked): GrowthJob<{ ways: ToldWay[]; complete: boolean }> =>
  begun((work) => work.front(asked, "hours"));

export const startHabits = (asked: GrowthAsked): GrowthJob<HabitWays> => begun((work) => work.habits(asked));

export const startWhatIf = (asked: GrowthAsked, onTold: (known: WhatIf) => void): GrowthJob<WhatIf> =>
  begun((work) => work.whatIf(asked, proxy(onTold)));

export const startByLayout = (asked: GrowthAsked, onTold: (known: LayoutWay[]) => void): GrowthJob<LayoutWay[]> =>
  begun((work) => work.byLayout(asked, proxy(onTold)));
