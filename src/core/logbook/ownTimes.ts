import type { Plan, WorkKind } from "../document/plan";
import { oneOrMany } from "../words/counted";
import type { Hours } from "../time/hours";
import { factorsOf, posteriorOf, type Posterior } from "./posterior";
import { LEAST_HOURS, recordedTimes, workKinds, type RecordedTime } from "./recordedTime";

/** By what the usual hours of each kind of work are multiplied; nothing of a kind of which nothing is known. */
export type OwnFactors = Partial<Record<WorkKind, Hours>>;

/** What a box's own times say of how long its work takes. */
export interface OwnTimes {
  /** The times that count. */
  times: readonly RecordedTime[];
  /** What is known of each kind of work that is not switched off. */
  of: Partial<Record<WorkKind, Posterior>>;
  factors: OwnFactors;
}

type Records = Pick<Plan, "history" | "log" | "ratesOnly">;

function made(records: Records): OwnTimes {
  const off = new Set(records.ratesOnly);
  const times = recordedTimes(records).filter(({ work }) => !off.has(work));
  const kinds = times.length === 0 ? [] : workKinds.filter((work) => !off.has(work));
  const known = kinds.map((work) => [work, posteriorOf(work, times)] as const);
  return {
    times,
    of: Object.fromEntries(known),
    factors: Object.fromEntries(known.map(([work, posterior]) => [work, factorsOf(posterior)])),
  };
}

let last: { records: Records; own: OwnTimes } | null = null;

/**
 * A box's own times, by the history and the log of its plan; the same object for the same records.
 *
 * @example ownTimesOf(plan).of.rebuild?.own // 3: three rebuilds are on record
 */
export function ownTimesOf({ history, log, ratesOnly }: Records): OwnTimes {
  const same = last?.records.history === history && last?.records.log === log && last?.records.ratesOnly === ratesOnly;
  if (last && same) return last.own;
  const records = { history, log, ratesOnly };
  last = { records, own: made(records) };
  return last.own;
}

/**
 * By what the hours of a kind of work are expected, within a sentence; null where that is the usual rates.
 *
 * @example ownTimesWords(plan, "rebuild") // "by your box’s own times: 9 entries"
 */
export function ownTimesWords(records: Records, work: WorkKind | undefined): string | null {
  const { times, of } = ownTimesOf(records);
  return work && of[work] ? `by your box’s own times: ${oneOrMany(times.length, "one entry", "entries")}` : null;
}

/**
 * Hours by the usual rates, corrected by what is known of the box; the very same where nothing is known, or where it is
 * a matter of minutes by hand.
 *
 * @param work the kind of work; null for what is done by hand
 * @example correctedHours({ low: 8, expected: 12.3, high: 19.7 }, "rebuild", ownTimesOf(plan).factors).expected // 15.1
 */
export function correctedHours(hours: Hours, work: WorkKind | null, factors: OwnFactors): Hours {
  const by = work ? factors[work] : undefined;
  if (!by || hours.expected < LEAST_HOURS) return hours;
  return { low: hours.expected * by.low, expected: hours.expected * by.expected, high: hours.expected * by.high };
}
