import type { Plan } from "@/core/document/plan";
import type { RescueAct } from "@/core/rescue/rescue";
import { poolsToRescue, rescueOf, settingOf } from "@/core/rescue/rescueOf";

const actAnswer = ({ does, why, hours, redundancyDuring, step, planned }: RescueAct) => ({
  does,
  why,
  hours,
  redundancyDuring,
  ...(step ? { step: planned ?? step } : {}),
});

/**
 * What is to be done for each pool that lacks drives, as `/api/predict` tells it.
 *
 * @param day as YYYY-MM-DD, by which the age of backups is judged
 * @example [...rescueAnswers(plan, "2026-11-26")][0].readable // true
 */
export function* rescueAnswers(plan: Plan, day: string) {
  for (const pool of poolsToRescue(plan)) {
    const setting = settingOf(plan, pool.id, "TB", day);
    if (!setting) continue;
    const { readable, first, wouldTake, comesBack, never, acts, buys, buy, fits, fitsNot } = rescueOf(setting).rescue;
    yield {
      pool: pool.id,
      readable,
      first,
      wouldTake,
      comesBack,
      never,
      acts: acts.map(actAnswer),
      newDrives: buys,
      buy,
      fits,
      fitsNot,
    };
  }
}
