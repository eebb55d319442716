/** A day as YYYY-MM-DD, counted in days since 1970; days have no time zone. */
const numberOf = (day: string): number => Date.parse(`${day}T00:00:00Z`) / 86_400_000;

/**
 * How many days lie between two days of the calendar; negative where the second comes first.
 *
 * @param from as YYYY-MM-DD
 * @param to the same
 * @example daysBetween("2028-02-28", "2028-03-01") // 2
 */
export function daysBetween(from: string, to: string): number {
  return numberOf(to) - numberOf(from);
}

/** Whether a text is a day of the calendar: YYYY-MM-DD, and one that there is. */
export function isDay(text: string): boolean {
  const at = /^\d{4}-\d{2}-\d{2}$/.test(text) ? Date.parse(`${text}T00:00:00Z`) : NaN;
  return Number.isFinite(at) && new Date(at).toISOString().startsWith(text);
}

/** The last day that four digits of a year can say. */
const LAST_DAY = numberOf("9999-12-31");

/**
 * The day so many days after another; none later than 9999-12-31, whatever the days.
 *
 * @param days whole days; parts are cut off
 * @example dayAfter("2026-12-30", 3) // "2027-01-02"
 */
export function dayAfter(day: string, days: number): string {
  return new Date(Math.min(LAST_DAY, numberOf(day) + Math.floor(days)) * 86_400_000).toISOString().slice(0, 10);
}
