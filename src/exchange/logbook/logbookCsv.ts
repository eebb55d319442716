import type { LogEntry, Plan } from "@/core/document/plan";
import { logbookLines, EVENT_WORDS } from "@/core/logbook/logbookLines";
import { workKinds } from "@/core/logbook/recordedTime";
import { isDay } from "@/core/time/days";
import Papa from "papaparse";
import { guardCell, unguardCell } from "../spreadsheet";

/** The columns of a logbook. `start` and `what` must be there; the others may be left out or empty. */
export const LOGBOOK_COLUMNS = [
  "start",
  "end",
  "what",
  "text",
  "usual_hours",
  "expected_hours",
  "low_hours",
  "high_hours",
  "counts",
  "outcome",
  "box_showed",
] as const;

export const MOST_LOGBOOK_CHARACTERS = 4 * 2 ** 20;
const MOST_ROWS = 5000;
const MOST_PROBLEMS = 20;

const figure = (value: number | null | undefined): string =>
  value === null || value === undefined ? "" : String(Math.round(value * 1000) / 1000);

/** What a row is, in one word: a kind of work, what befell the box, or a step that is none of them. */
const whatOf = (plan: Plan, id: string, work: string | null): string =>
  work ?? plan.log?.find((entry) => entry.id === id)?.what ?? "note";

/**
 * The logbook as CSV, the oldest entry first; times in UTC. Cells that a spreadsheet would take for a formula are
 * disarmed.
 *
 * @param only ids of the entries that are wanted, where not all
 */
export function writeLogbookCsv(plan: Plan, only?: ReadonlySet<string>): string {
  const rows = logbookLines(plan)
    .filter(({ id }) => only?.has(id) ?? true)
    .reverse()
    .map((line) => [
      line.start,
      line.end ?? "",
      whatOf(plan, line.id, line.work),
      guardCell(line.isOfPlan && line.text ? `${line.title}: ${line.text}` : line.text || line.title),
      figure(line.byRates),
      figure(line.predicted?.expected),
      figure(line.predicted?.low),
      figure(line.predicted?.high),
      line.work === null ? "" : line.leftOut ? "no" : "yes",
      line.outcome ?? "",
      guardCell(line.shown?.seen ?? ""),
    ]);
  return `${Papa.unparse({ fields: [...LOGBOOK_COLUMNS], data: rows }, { newline: "\n" })}\n`;
}

export type LogbookResult =
  { ok: true; entries: Omit<LogEntry, "id">[]; known: number } | { ok: false; problems: string[] };

type Row = Partial<Record<(typeof LOGBOOK_COLUMNS)[number], string>>;

const KNOWN_WHAT: ReadonlySet<string> = new Set([...workKinds, ...Object.keys(EVENT_WORDS)]);
const INSTANT = /^(19\d{2}|20\d{2}|2100)-\d{2}-\d{2}(T([01]\d|2[0-3]):[0-5]\d(:[0-5]\d(\.\d{1,9})?)?Z)?$/;

const isInstant = (text: string): boolean => INSTANT.test(text) && isDay(text.slice(0, 10));

/** A number of hours; undefined where none is given, null where it is none. */
function hoursIn(text: string | undefined): number | null | undefined {
  if (!text) return undefined;
  const value = Number(text.replace(",", "."));
  return value >= 0 && value <= 1e6 ? value : null;
}

const WRONG_TIME = "is no time. Write a day and a time in UTC, like 2026-11-28T09:05Z, or a day.";

/** What is wrong with the times of a row. */
function timeProblems({ start = "", end = "" }: Row): string[] {
  const wrong = [start, ...(end ? [end] : [])]
    .filter((time) => !isInstant(time))
    .map((time) => `"${time}" ${WRONG_TIME}`);
  if (wrong.length > 0 || !end || Date.parse(end) >= Date.parse(start)) return wrong;
  return [`It ends at ${end}, before it begins at ${start}.`];
}

function predictedIn(row: Row): Pick<LogEntry, "predicted"> {
  const [low, expected, high] = [row.low_hours, row.expected_hours, row.high_hours].map(hoursIn);
  return typeof low === "number" && typeof expected === "number" && typeof high === "number"
    ? { predicted: { low, expected, high } }
    : {};
}

/** One row as an entry, or everything that is wrong with it. */
function entryOf(row: Row): Omit<LogEntry, "id"> | string[] {
  const what = row.what ?? "";
  const hours = [row.usual_hours, row.expected_hours, row.low_hours, row.high_hours];
  const problems = [
    ...timeProblems(row),
    ...(KNOWN_WHAT.has(what)
      ? []
      : [`"${what}" is nothing that the logbook knows. Use one of ${[...KNOWN_WHAT].join(", ")}.`]),
    ...hours.filter((text) => hoursIn(text) === null).map((text) => `"${text}" is no number of hours.`),
  ];
  if (problems.length > 0) return problems;
  const byRates = hoursIn(row.usual_hours);
  return {
    what: what as LogEntry["what"],
    text: (row.text ?? "").slice(0, 200),
    start: row.start ?? "",
    ...(row.end ? { end: row.end } : {}),
    ...(typeof byRates === "number" ? { byRates } : {}),
    ...predictedIn(row),
    // What was stopped on the way says nothing of how fast a box is.
    ...(row.counts === "no" || row.outcome === "stopped" ? { leftOut: true as const } : {}),
  };
}

const nameOf = ({ what, start, end }: { what: string; start: string; end?: string | null }): string =>
  `${what} ${Date.parse(start)} ${end ? Date.parse(end) : ""}`;

/**
 * Reads a logbook: a CSV with a header of `LOGBOOK_COLUMNS` in any order. Entries that the plan has already, by what
 * they are and their times, are left out.
 *
 * @returns the entries and how many were known, or every problem with its line; it never throws
 * @example readLogbookCsv("start,what,text\n2026-11-28T09:05Z,check,Images", plan)
 */
export function readLogbookCsv(text: string, plan: Plan): LogbookResult {
  if (text.length > MOST_LOGBOOK_CHARACTERS)
    return { ok: false, problems: ["The file is larger than 4 MB. A logbook has at most 5,000 entries."] };
  const { data, meta } = Papa.parse<Record<string, string>>(text.replace(/^\uFEFF/, ""), {
    header: true,
    skipEmptyLines: "greedy",
    transformHeader: (name) => name.trim().toLowerCase(),
    transform: (cell) => unguardCell(cell.trim()),
  });
  const columns = LOGBOOK_COLUMNS as readonly string[];
  const fields = meta.fields ?? [];
  const lacking = ["start", "what"].filter((name) => !fields.includes(name));
  if (lacking.length > 0)
    return {
      ok: false,
      problems: [`The first line must name the columns: ${columns.join(",")}. ${lacking.join(" and ")} must be there.`],
    };
  if (data.length === 0) return { ok: false, problems: ["There is no entry below the first line."] };
  if (data.length > MOST_ROWS)
    return { ok: false, problems: ["The file has more than 5,000 entries; at most so many are read at once."] };
  const rows = data.map((row) => entryOf(row as Row));
  const problems = rows.flatMap((row, i) =>
    Array.isArray(row) ? row.map((message) => `Entry ${i + 1}: ${message}`) : [],
  );
  if (problems.length > 0) return { ok: false, problems: problems.slice(0, MOST_PROBLEMS) };
  const there = new Set(
    logbookLines(plan).map((line) =>
      nameOf({ what: whatOf(plan, line.id, line.work), start: line.start, end: line.end }),
    ),
  );
  const entries = rows.flatMap((row) => (Array.isArray(row) ? [] : [row]));
  const fresh = entries.filter((entry) => !there.has(nameOf(entry)));
  return { ok: true, entries: fresh, known: entries.length - fresh.length };
}
