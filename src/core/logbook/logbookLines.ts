import type { DoneStep, LogEntry, Plan, WorkKind } from "../document/plan";
import type { Hours } from "../time/hours";
import { isWork, recordedTimes, hoursBetween } from "./recordedTime";
import { oneWork } from "./workWords";

/** What can befall a box that is no work, by how the logbook calls it. */
export const EVENT_WORDS: Readonly<Record<Exclude<LogEntry["what"], WorkKind>, string>> = {
  failure: "A drive failed",
  missing: "A drive was missing",
  back: "A drive came back",
  "power-cut": "The power was cut",
  note: "Note",
};

/** An entry of the logbook, of the plan or from outside it. */
export interface LogbookLine {
  id: string;
  isOfPlan: boolean;
  /** What it was, in a few words. */
  title: string;
  text: string;
  start: string;
  end: string | null;
  /** How long it took; null for what took no time. */
  hours: number | null;
  predicted: Hours | null;
  byRates: number | null;
  work: WorkKind | null;
  /** Whether its time counts for what is expected of others. */
  counts: boolean;
  leftOut: boolean;
  outcome: DoneStep["outcome"] | null;
  shown: DoneStep["shown"] | null;
}

const timesOf = ({ start, end, byRates, predicted }: Pick<LogEntry, "start" | "end" | "byRates" | "predicted">) => ({
  start,
  end: end ?? null,
  hours: end === undefined || end === start ? null : hoursBetween(start, end),
  predicted: predicted ?? null,
  byRates: byRates ?? null,
});

/** What a log entry is called. */
export const whatWords = (what: LogEntry["what"]): string => (isWork(what) ? oneWork(what) : EVENT_WORDS[what]);

/**
 * All that happened, the newest first.
 *
 * @example logbookLines(plan)[0]?.title // "Replace 4 TB in bay 1 by 12 TB"
 */
export function logbookLines(plan: Pick<Plan, "history" | "log" | "ratesOnly">): LogbookLine[] {
  const off = new Set(plan.ratesOnly);
  const counting = new Set(recordedTimes(plan).flatMap(({ entry, work }) => (off.has(work) ? [] : [entry])));
  const shared = ({ id, leftOut }: { id: string; leftOut?: true }) => ({
    id,
    counts: counting.has(id),
    leftOut: leftOut ?? false,
  });
  const ofPlan = (plan.history ?? []).map((done): LogbookLine => ({
    ...shared(done),
    ...timesOf(done),
    isOfPlan: true,
    title: done.label,
    text: [...(done.drives ?? []), ...(done.why ? [done.why] : [])].join("; "),
    work: done.work ?? null,
    outcome: done.outcome,
    shown: done.shown ?? null,
  }));
  const outside = (plan.log ?? []).map((entry): LogbookLine => ({
    ...shared(entry),
    ...timesOf(entry),
    isOfPlan: false,
    title: whatWords(entry.what),
    text: entry.text,
    work: isWork(entry.what) ? entry.what : null,
    outcome: null,
    shown: null,
  }));
  return [...ofPlan, ...outside].sort((a, b) => Date.parse(b.start) - Date.parse(a.start));
}
