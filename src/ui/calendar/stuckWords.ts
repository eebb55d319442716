import type { Stuck } from "@/core/schedule/schedulePlan";

/** Why a step cannot be given a date, and what to do. */
export const STUCK_WORDS: Record<Stuck["why"], string> = {
  "no-hour":
    "Within three years there is no hour at which you could begin this. Change your hours, or the days that " +
    "you left out, in the calendar.",
  "too-long":
    "This would last beyond the year 2100, where the calendar ends. Look at its sizes, its speed, and the day " +
    "for which it waits.",
};
