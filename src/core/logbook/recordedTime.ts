import type { Plan, WorkKind } from "../document/plan";

/** How long a work of a kind took, held against what the usual rates gave for it. */
export interface RecordedTime {
  /** The entry of the history or the log that it comes from. */
  entry: string;
  work: WorkKind;
  /** Actual ÷ expected hours, above 0. */
  ratio: number;
}

/** Below this many expected hours a time is that of hands and clicks, and says nothing of the box. */
export const LEAST_HOURS = 0.25;

/** A ratio beyond this, or its inverse, is no speed of a box: a wrong date, or a night in which it was off. */
const MOST_RATIO = 20;

const WORK_KINDS: Readonly<Record<WorkKind, true>> = {
  rebuild: true,
  copy: true,
  rewrite: true,
  "first-fill": true,
  rebalance: true,
  check: true,
  "parity-update": true,
  "self-test": true,
  wipe: true,
  backup: true,
  restore: true,
};

/** The kinds of work, in the order in which they are listed. */
export const workKinds = Object.keys(WORK_KINDS) as readonly WorkKind[];

/** Whether a word of a log entry is a kind of work. */
export const isWork = (what: string): what is WorkKind => Object.hasOwn(WORK_KINDS, what);

/** The hours between two instants of a plan; negative where the second comes first. */
export const hoursBetween = (start: string, end: string): number => (Date.parse(end) - Date.parse(start)) / 3_600_000;

function timeOf(
  entry: string,
  work: WorkKind | undefined,
  { start, end, byRates, leftOut }: { start: string; end?: string; byRates?: number; leftOut?: true },
): RecordedTime[] {
  if (!work || leftOut || end === undefined || byRates === undefined || byRates < LEAST_HOURS) return [];
  const ratio = hoursBetween(start, end) / byRates;
  return ratio > 1 / MOST_RATIO && ratio < MOST_RATIO ? [{ entry, work, ratio }] : [];
}

/**
 * The times of a plan's history and log that tell how fast its box is: works that were carried out to their end, with
 * what the usual rates gave for them. Those that are left out, that took minutes by hand, or that cannot be a speed (a
 * twentieth or twenty times of what was expected) are not among them.
 *
 * @example recordedTimes(planWithARebuildOf15hThatShouldTake12) // [{ entry: "h1", work: "rebuild", ratio: 1.25 }]
 */
export function recordedTimes({ history = [], log = [] }: Pick<Plan, "history" | "log">): RecordedTime[] {
  return [
    ...history.flatMap((done) => (done.outcome === "done" ? timeOf(done.id, done.work, done) : [])),
    ...log.flatMap((entry) => timeOf(entry.id, isWork(entry.what) ? entry.what : undefined, entry)),
  ];
}
