// Dates as they are read, in a time zone; the clock has 24 hours, so that no evening is taken for a morning.

const format = (options: Intl.DateTimeFormatOptions, at: number, timeZone: string): string =>
  new Intl.DateTimeFormat("en-GB", { ...options, timeZone }).format(at).replace(/,(?= \d\d:)/, "");

/** "Sat 28 Nov 2026" */
export const dayWords = (at: number, timeZone: string): string =>
  format({ weekday: "short", day: "numeric", month: "short", year: "numeric" }, at, timeZone).replace(",", "");

/** "Sat 28 Nov, 09:00" */
export const momentWords = (at: number, timeZone: string): string =>
  `${format({ weekday: "short", day: "numeric", month: "short" }, at, timeZone).replace(",", "")}, ` +
  `${clockWords(at, timeZone)}`;

/** "09:00" */
export const clockWords = (at: number, timeZone: string): string =>
  format({ hour: "2-digit", minute: "2-digit", hourCycle: "h23" }, at, timeZone);

/** A day as YYYY-MM-DD: "28 Nov 2026". */
export const plainDayWords = (day: string): string =>
  format({ day: "numeric", month: "short", year: "numeric" }, Date.parse(`${day}T00:00:00Z`), "UTC");

/** A month as YYYY-MM: "November 2026". */
export const monthWords = (month: string): string =>
  format({ month: "long", year: "numeric" }, Date.parse(`${month}-01T00:00:00Z`), "UTC");

/** The day, as YYYY-MM-DD, on which a moment falls in a time zone. */
export function dayIn(at: number, timeZone: string): string {
  const parts = Object.fromEntries(
    new Intl.DateTimeFormat("en", { year: "numeric", month: "2-digit", day: "2-digit", timeZone })
      .formatToParts(at)
      .map((part) => [part.type, part.value]),
  );
  return `${parts.year}-${parts.month}-${parts.day}`;
}

/** The day on which a moment of a plan falls, for `planSummary`; nothing where the plan has no dates. */
export function dayOfMomentIn(
  dates: { calendar: { timeZone: string }; steps: readonly { end: number }[] } | null,
): ((index: number) => string) | undefined {
  return dates ? (index) => `on ${dayWords(dates.steps[index - 1]?.end ?? 0, dates.calendar.timeZone)}` : undefined;
}
