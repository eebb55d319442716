import { proxy, wrap, type Remote } from "comlink";
import type { Told, ToldWay } from "@/core/bestWay/told";
import type { WhatIf } from "@/core/bestWay/whatIf";
import type { GrowthAsked, GrowthProgress, GrowthWork, HabitCents } from "./bestWay.worker";

export type { GrowthAsked, GrowthProgress, HabitCents } from "./bestWay.worker";

/** Work under way in a worker of its own; cancelled, its promise is never settled. */
export interface GrowthJob<T> {
  result: Promise<T>;
  cancel: () => void;
}

function inWorker<T>(ask: (work: Remote<GrowthWork>) => Promise<T>): GrowthJob<T> {
  const worker = new Worker(new URL("./bestWay.worker.ts", import.meta.url), { type: "module" });
  const broken = new Promise<never>((_, reject) => {
    worker.addEventListener("error", () => reject(new Error("The best way could not be worked out in this browser.")));
  });
  const cancel = () => worker.terminate();
  return { result: Promise.race([ask(wrap<GrowthWork>(worker)), broken]).finally(cancel), cancel };
}

/**
 * Looks for the best way to grow off the main thread.
 *
 * @param onTold told each better way as it is found, how far the proof is, and in the end what was found
 */
export const startBestWay = (asked: GrowthAsked, onTold: (told: Told | GrowthProgress) => void): GrowthJob<void> =>
  inWorker((work) => work.best(asked, proxy(onTold)));

/** What stands beside the best way: the front, habits, and what would change the first purchase. */
export const startFront = (asked: GrowthAsked): GrowthJob<{ ways: ToldWay[]; complete: boolean }> =>
  inWorker((work) => work.front(asked, "hours"));

export const startHabits = (asked: GrowthAsked): GrowthJob<HabitCents> => inWorker((work) => work.habits(asked));

export const startWhatIf = (asked: GrowthAsked): GrowthJob<WhatIf> =>
  inWorker((work) =>
    work.whatIf(
      asked,
      proxy(() => undefined),
    ),
  );
