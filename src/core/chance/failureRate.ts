import type { Drive } from "../document/plan";
import { daysBetween } from "../time/days";
import { HOURS_A_YEAR, type InputName, type Point } from "./inputs";

/** The age, in years, of a drive of which no purchase date is known. */
export const USUAL_AGE = 2;

/** The first day of what is known of a purchase: a year, a month or a day. */
const dayOfPurchase = (purchased: string): string => (purchased + "-01-01").slice(0, 10);

/**
 * How old a drive is at a day, in years; two where that is not known.
 *
 * @param day as YYYY-MM-DD; null leaves out how old drives are
 * @example ageOf({ purchased: "2024-05" }, "2026-11-01") // 2.5
 */
export function ageOf({ purchased }: Pick<Drive, "purchased">, day: string | null): number {
  if (purchased === undefined || day === null) return USUAL_AGE;
  return Math.max(0, daysBetween(dayOfPurchase(purchased), day) / 365.25);
}

const YEARS = [1, 2, 3, 4, 5, 6, 7, 8].map((year) => `diskYear${year}` as InputName);

/** The share of hard disks of an age that fails in a year: a straight line between entries; the last one stays. */
function diskRate(age: number, point: Point): number {
  const at = (entry: number) => point[YEARS[Math.min(entry, YEARS.length - 1)] ?? "diskYear8"];
  const floor = Math.floor(Math.max(0, age));
  return at(floor) + (Math.max(0, age) - floor) * (at(floor + 1) - at(floor));
}

/** More than this share of drives cannot be told from all of them. */
const MOST_A_YEAR = 0.999;

/**
 * How often a drive fails, an hour.
 *
 * @param age in years, those that have passed included
 * @example failureRate(disk, 2, pointOf({})) * 8766 // 0.01715: 1.7 % of them fail in that year
 */
export function failureRate({ medium, health }: Pick<Drive, "medium" | "health">, age: number, point: Point): number {
  const yearly = medium === "ssd" ? point.flash : diskRate(age, point);
  const times = health.state === "watch" ? point.worn : health.state === "failing" ? point.failing : 1;
  // Of those that are left, so that the share that fails in a year is the one that was counted.
  return (-Math.log1p(-Math.min(yearly, MOST_A_YEAR)) * times) / HOURS_A_YEAR;
}
