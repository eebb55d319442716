import { Temporal } from "temporal-polyfill";

/** Whole months from one day to another, as YYYY-MM-DD; below 0 where the other comes first. */
export const monthsBetween = (from: string, to: string): number =>
  Temporal.PlainDate.from(from.slice(0, 7).concat("-01")).until(`${to.slice(0, 7)}-01`, { largestUnit: "months" })
    .months;

/** The same day some months later; the last of a shorter month. */
export const monthsAfter = (day: string, months: number): string =>
  Temporal.PlainDate.from(day).add({ months }).toString();
