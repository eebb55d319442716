import { formatBytes, type UnitFamily } from "@/core/bytes/formatBytes";
import type { Schedule } from "@/core/schedule/schedulePlan";
import { dayWords } from "@/core/time/dateWords";
import { exposedWords } from "@/core/walk/exposedWords";
import type { Walk, WalkedMoment, WalkedStep } from "@/core/walk/moment";
import { dayOf } from "@/core/walk/planSummary";
import { capital } from "@/core/words/capital";
import { survivesWords } from "@/core/words/survives";

/** What stands against a step, or what is left of protection while it runs; nothing where that stays as it is. */
function dangerOf({ step, done, exposure, cost }: WalkedStep): string[] {
  if (step.disabled) return ["Skipped."];
  if (!done) return ["It cannot be carried out as planned."];
  const worst = [...exposure].sort((a, b) => a.redundancy - b.redundancy)[0];
  return worst ? [`${capital(exposedWords(worst, cost.hours.expected))}.`] : [];
}

/** What is survived at a moment by all pools. */
const survives = ({ tolerance }: WalkedMoment): string[] =>
  tolerance.length === 0 ? [] : [`${survivesWords(Math.min(...tolerance))}.`];

/**
 * What stands at a moment of the plan, as it is read aloud: when, what is left of protection, what is done, and then
 * the figures.
 *
 * @param schedule by which the moments have dates; without, they have days
 * @example spokenMoment(walk, null, 1, "TB")
 * // "Day 2, after step 1 of 3. Meanwhile, one more failed drive would lose data. The 12 TB drive … 16.0 TB in the
 * // pool."
 */
export function spokenMoment({ moments }: Walk, schedule: Schedule | null, at: number, unit: UnitFamily): string {
  const moment = moments[at];
  if (!moment) return "";
  const figures = `${formatBytes(moment.capacities.pool, unit)} in the pool.`;
  const { walked } = moment;
  if (!walked) return ["Now, before the first step.", ...survives(moment), figures].join(" ");
  const end = schedule?.steps[at - 1]?.end;
  const when = schedule && end !== undefined ? dayWords(end, schedule.calendar.timeZone) : `Day ${dayOf(walked.to)}`;
  const danger = dangerOf(walked);
  return [
    `${when}, after step ${at} of ${moments.length - 1}.`,
    ...(danger.length > 0 ? danger : survives(moment)),
    walked.does,
    figures,
  ].join(" ");
}
