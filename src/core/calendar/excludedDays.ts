import { Temporal } from "temporal-polyfill";
import type { DayRange } from "../document/plan";

const MONTHS = ["jan", "feb", "mar", "apr", "may", "jun", "jul", "aug", "sep", "oct", "nov", "dec"];
const MONTH_NAMES = ["Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec"];

/** A day as it was typed; what was left out is null. */
interface TypedDay {
  year: number | null;
  month: number | null;
  day: number;
}

function typedDay(text: string): TypedDay | null {
  const iso = /^(\d{4})-(\d{1,2})-(\d{1,2})$/.exec(text);
  if (iso) return { year: Number(iso[1]), month: Number(iso[2]), day: Number(iso[3]) };
  const words =
    /^(?:(\d{1,2})(?:st|nd|rd|th)?\.?(?:\s+([a-z]{3,9})\.?(?:,?\s+(\d{4}))?)?|([a-z]{3,9})\.?\s+(\d{1,2})(?:st|nd|rd|th)?(?:,?\s+(\d{4}))?)$/.exec(
      text,
    );
  if (!words) return null;
  const name = words[2] ?? words[4];
  const month = name === undefined ? null : MONTHS.indexOf(name.slice(0, 3)) + 1;
  if (month === 0) return null;
  const year = words[3] ?? words[6];
  return { day: Number(words[1] ?? words[5]), month, year: year === undefined ? null : Number(year) };
}

/** The day of that month in the first year from `since` on in which there is one, or null. */
function firstFrom(
  since: Temporal.PlainDate,
  { year, month, day }: TypedDay & { month: number },
): Temporal.PlainDate | null {
  // A 29th of February can be up to eight years away.
  const years = year !== null ? [year] : Array.from({ length: 9 }, (_, n) => since.year + n);
  for (const each of years) {
    try {
      const date = Temporal.PlainDate.from({ year: each, month, day }, { overflow: "reject" });
      if (year !== null || Temporal.PlainDate.compare(date, since) >= 0) return date;
    } catch {
      // No such day in that year.
    }
  }
  return null;
}

/** Days that were typed, or which words could not be read. */
export type TypedDays = { ok: true; ranges: DayRange[] } | { ok: false; message: string };

/** A day or a range of days in words, read; or what is wrong with it. */
function readRange(part: string, since: Temporal.PlainDate): DayRange | string {
  const ends = part.split(/\s*(?:–|—|\bto\b|\buntil\b|\s-\s)\s*|(?<=^\d{1,2})-(?=\d{1,2}\s+[a-z])/);
  const typed = ends.map((each) => typedDay(each.trim()));
  const [first, last] = [typed[0], typed.at(-1)];
  if (ends.length > 2 || !first || !last)
    return `“${part}” is no day that can be read. Write, for instance, 24–26 Dec, or 2027-02-14 to 2027-02-20.`;
  const month = first.month ?? last.month;
  if (month === null || last.month === null) return `“${part}” names no month. Write, for instance, 24–26 Dec.`;
  // A year at the end of a range counts for its beginning too, unless that would put the two the wrong way round.
  const year = first.year ?? (last.year !== null && month > last.month ? last.year - 1 : last.year);
  const from = firstFrom(since, { ...first, month, year });
  const to = from && (typed.length === 1 ? from : firstFrom(from, { ...last, month: last.month }));
  if (!from || !to) return `“${part}” is not in the calendar: there is no such day.`;
  if (Temporal.PlainDate.compare(to, from) < 0) return `“${part}” ends before it begins.`;
  return { from: from.toString(), to: to.toString() };
}

/**
 * Reads days as people write them: "24–26 Dec, 1 Jan 2027; 2027-02-14 to 2027-02-20". A day without its year is the
 * first from the start on.
 *
 * @param start as YYYY-MM-DD
 * @example parseExcluded("24 Dec – 2 Jan", "2026-11-23")
 * // { ok: true, ranges: [{ from: "2026-12-24", to: "2027-01-02" }] }
 */
export function parseExcluded(text: string, start: string): TypedDays {
  const since = Temporal.PlainDate.from(start);
  // A comma before a year belongs to its date.
  const parts = text
    .split(/[;\n]|,(?!\s*\d{4}\s*(?:$|[,;\n–—]|-\s|to\b|until\b))/i)
    .map((each) => each.trim().toLowerCase())
    .filter(Boolean);
  const ranges: DayRange[] = [];
  for (const part of parts) {
    const range = readRange(part, since);
    if (typeof range === "string") return { ok: false, message: range };
    ranges.push(range);
  }
  return ranges.length > 100
    ? { ok: false, message: "At most 100 days or ranges of days can be left out." }
    : { ok: true, ranges };
}

/**
 * The same days in words that can be typed again.
 *
 * @example writeExcluded([{ from: "2026-12-24", to: "2026-12-26" }]) // "24 Dec 2026 – 26 Dec 2026"
 */
export function writeExcluded(ranges: readonly DayRange[]): string {
  const word = (day: string) => {
    const date = Temporal.PlainDate.from(day);
    return `${date.day} ${MONTH_NAMES[date.month - 1]} ${date.year}`;
  };
  return ranges.map(({ from, to }) => (from === to ? word(from) : `${word(from)} – ${word(to)}`)).join(", ");
}
