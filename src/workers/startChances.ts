import { proxy, type Remote } from "comlink";
import type { ChancesSoFar } from "@/core/chance/planChances";
import type { Plan, PlanCalendar } from "@/core/document/plan";
import type { ProposalSetting } from "@/core/mends/proposals";
import type { WhatHelps } from "@/core/mends/whatHelps";
import type { ChanceWork } from "./chance.worker";
import { inWorker, type WorkerJob } from "./inWorker";

export type ChanceJob<T> = WorkerJob<T>;

const begun = <T>(ask: (work: Remote<ChanceWork>) => Promise<T>): ChanceJob<T> =>
  inWorker<ChanceWork, T>(
    new Worker(new URL("./chance.worker.ts", import.meta.url), { type: "module" }),
    ask,
    "The chances could not be worked out in this browser.",
  );

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
): ChanceJob<void> => begun((work) => work.follow(plan, moments, day, proxy(onTold)));

/** Works out what lowers them most. */
export const startWhatHelps = (plan: Plan, setting: ProposalSetting, calendar: PlanCalendar): ChanceJob<WhatHelps> =>
  begun((work) => work.helps(plan, setting, calendar));
