import type { Walk } from "../walk/moment";
import type { Schedule } from "./schedulePlan";

/** When each step of a plan begins and ends, in days from its beginning. */
export interface StepTimes {
  start: number;
  end: number;
}

/** When the steps run by the hours of the walk alone, where there is no calendar. */
export const timesByHours = ({ moments }: Walk): StepTimes[] =>
  moments.slice(1).map(({ walked }) => ({ start: (walked?.from ?? 0) / 24, end: (walked?.to ?? 0) / 24 }));

/** When the steps run by a calendar. */
export const timesByCalendar = ({ begin, steps }: Pick<Schedule, "begin" | "steps">): StepTimes[] =>
  steps.map(({ start, end }) => ({ start: (start - begin) / 86_400_000, end: (end - begin) / 86_400_000 }));
