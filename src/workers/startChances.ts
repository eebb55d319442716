import { proxy, wrap, type Remote } from "comlink";
import type { ChancesSoFar } from "@/core/chance/planChances";
import type { Plan, PlanCalendar } from "@/core/document/plan";
import type { ProposalSetting } from "@/core/mends/proposals";
import type { WhatHelps } from "@/core/mends/whatHelps";
import type { ChanceWork } from "./chance.worker";

/** Work that is under way in a worker of its own; cancelled, its promise is never settled. */
export interface ChanceJob<T> {
  result: Promise<T>;
  cancel: () => void;
}

function inWorker<T>(ask: (work: Remote<ChanceWork>) => Promise<T>): ChanceJob<T> {
  const worker = new Worker(new URL("./chance.worker.ts", import.meta.url), { type: "module" });
  const broken = new Promise<never>((_, reject) => {
    worker.addEventListener("error", () => reject(new Error("The chances could not be worked out in this browser.")));
  });
  const cancel = () => worker.terminate();
  return { result: Promise.race([ask(wrap<ChanceWork>(worker)), broken]).finally(cancel), cancel };
}

/**
 * Works out the chances of a plan off the main thread: at first without ranges, which follow.
 *
 * @param moments at which the box is at rest
 * @param day as YYYY-MM-DD, by which the ages of drives and backups are judged
 * @param onTold told the chances, or how far their ranges are, 0 to 1
 */
export const startChances = (
  plan: Plan,
  moments: readonly number[],
  day: string,
  onTold: (told: ChancesSoFar | number) => void,
): ChanceJob<void> => inWorker((work) => work.follow(plan, moments, day, proxy(onTold)));

/** Works out what lowers them most. */
export const startWhatHelps = (plan: Plan, setting: ProposalSetting, calendar: PlanCalendar): ChanceJob<WhatHelps> =>
  inWorker((work) => work.helps(plan, setting, calendar));
