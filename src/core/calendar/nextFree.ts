import { Temporal } from "temporal-polyfill";
import type { DayRange, HandsWindow } from "../document/plan";

/** As far ahead as a free hour is looked for, in days: three years. */
const FARTHEST_DAYS = 3 * 366;

const isExcluded = (day: string, excluded: readonly DayRange[]) =>
  excluded.some(({ from, to }) => from <= day && day <= to);

/**
 * The first moment from one on at which there are so many minutes of such hours left. Hours are those of the clock on
 * the wall: on days on which clocks change, a window is as much shorter or longer.
 *
 * @param from the earliest moment, in the time zone whose clock counts
 * @param windows hours of days of the week
 * @param excluded days that are passed over
 * @param minutes how long the hours must still last then
 * @returns null if there is none within three years
 * @example nextFree(fridayNoon, HANDS["week-ends"].windows, [], 45) // Saturday, 9:00
 */
export function nextFree(
  from: Temporal.ZonedDateTime,
  windows: readonly HandsWindow[],
  excluded: readonly DayRange[],
  minutes: number,
): Temporal.ZonedDateTime | null {
  let day = from.toPlainDate();
  for (let n = 0; n < FARTHEST_DAYS; n += 1) {
    if (!isExcluded(day.toString(), excluded)) {
      const today = windows
        .filter((window) => window.days.includes(day.dayOfWeek))
        .map((window) => ({
          opens: day.toZonedDateTime({ timeZone: from.timeZoneId, plainTime: window.from }),
          closes: day.toZonedDateTime({ timeZone: from.timeZoneId, plainTime: window.to }),
        }))
        .sort((a, b) => Temporal.ZonedDateTime.compare(a.opens, b.opens));
      for (const { opens, closes } of today) {
        const start = Temporal.ZonedDateTime.compare(opens, from) >= 0 ? opens : from;
        if (start.epochMilliseconds + minutes * 60_000 <= closes.epochMilliseconds) return start;
      }
    }
    day = day.add({ days: 1 });
  }
  return null;
}
