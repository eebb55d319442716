import { Temporal } from "temporal-polyfill";
import type { DayRange, HandsWindow } from "../document/plan";

/** As far ahead as a free hour is looked for, in days: three years. */
const FARTHEST_DAYS = 3 * 366;

/** Finds the first free hour from a moment on; null if there is none within three years. */
export type FindHour = (from: Temporal.ZonedDateTime) => Temporal.ZonedDateTime | null;

/** For each day, the day after all the days off that it is among; null where one is at the box. */
function daysOff(excluded: readonly DayRange[]): (day: string) => string | null {
  return (day) => {
    let last: string | null = null;
    for (const { from, to } of excluded) if (from <= day && day <= to && (last === null || to > last)) last = to;
    return last;
  };
}

/**
 * A finder of the first moment at which there are so many minutes of such hours left. Hours are those of the clock on
 * the wall: on days on which clocks change, a window is as much shorter or longer. It remembers the days that it went
 * through in vain, so that a search that failed is not made again from a later moment.
 *
 * @param windows hours of days of the week
 * @param excluded days that are passed over
 * @param minutes how long the hours must still last then
 * @returns to be asked with moments in the time zone whose clock counts; best in the order of time
 * @example hourFinder(HANDS["week-ends"].windows, [], 45)(fridayNoon) // Saturday, 9:00
 */
export function hourFinder(windows: readonly HandsWindow[], excluded: readonly DayRange[], minutes: number): FindHour {
  const offUntil = daysOff(excluded);
  const ofWeekday = Array.from({ length: 8 }, (_, n) => windows.filter((window) => window.days.includes(n)));
  let vain: { from: Temporal.PlainDate; until: Temporal.PlainDate } | null = null;
  const freeOn = (day: Temporal.PlainDate, from: Temporal.ZonedDateTime): Temporal.ZonedDateTime | null => {
    const timeZone = from.timeZoneId;
    const today = (ofWeekday[day.dayOfWeek] ?? [])
      .map((window) => ({ opens: day.toZonedDateTime({ timeZone, plainTime: window.from }), to: window.to }))
      .sort((a, b) => Temporal.ZonedDateTime.compare(a.opens, b.opens));
    for (const { opens, to } of today) {
      const start = Temporal.ZonedDateTime.compare(opens, from) >= 0 ? opens : from;
      const closes = day.toZonedDateTime({ timeZone, plainTime: to });
      if (start.epochMilliseconds + minutes * 60_000 <= closes.epochMilliseconds) return start;
    }
    return null;
  };
  return (from) => {
    const first = from.toPlainDate();
    const end = first.add({ days: FARTHEST_DAYS });
    const isBetween =
      vain && Temporal.PlainDate.compare(vain.from, first) <= 0 && Temporal.PlainDate.compare(first, vain.until) <= 0;
    let day = isBetween && vain ? vain.until : first;
    while (Temporal.PlainDate.compare(day, end) < 0) {
      const off = offUntil(day.toString());
      const start = off === null ? freeOn(day, from) : null;
      if (start) return start;
      day = (off === null ? day : Temporal.PlainDate.from(off)).add({ days: 1 });
    }
    vain = { from: isBetween && vain ? vain.from : first, until: day };
    return null;
  };
}

/**
 * The first moment from one on at which there are so many minutes of such hours left, as `hourFinder` finds it.
 *
 * @returns null if there is none within three years
 * @example nextFree(fridayNoon, HANDS["week-ends"].windows, [], 45) // Saturday, 9:00
 */
export function nextFree(
  from: Temporal.ZonedDateTime,
  windows: readonly HandsWindow[],
  excluded: readonly DayRange[],
  minutes: number,
): Temporal.ZonedDateTime | null {
  return hourFinder(windows, excluded, minutes)(from);
}
