import type { Bytes } from "../bytes/bytes";
import { formatBytes, type UnitFamily } from "../bytes/formatBytes";
import type { Plan, Pool } from "../document/plan";
import { plainDayWords } from "../time/dateWords";
import { lengthWords } from "../time/hoursWords";
import { sizeAfter } from "./dataSet";
import { dataSetsIn } from "./stored";

/** What the parity of a pool does not know yet, where it is written by schedule. */
export interface Unprotected {
  /** When the last update ended, as the plan says it; null where that is not known. */
  since: string | null;
  /** For how many hours changes have come to it since, or can come to it at most; null where that is not known. */
  hours: number | null;
  /** By how much its data sets grow in that time, in bytes; null where it is not known. Changes come on top. */
  bytes: Bytes | null;
}

const HOUR = 3_600_000;

/** When the first of a pool's drives failed, as far as that is known. */
function firstFailure(plan: Plan, pool: Pool): string | undefined {
  const members = new Set(pool.groups.flatMap((group) => group.drives));
  return plan.drives
    .flatMap(({ id, state, since }) => (members.has(id) && state !== undefined && since !== undefined ? [since] : []))
    .sort()[0];
}

/**
 * What of a pool with scheduled parity is not protected: what has changed since the last update, up to the failure of a
 * drive or to now.
 *
 * @param now as an ISO 8601 moment; null where it is not to be judged, which then takes the time between two updates
 * @example unprotectedOf(plan, pool, "2026-11-26T12:00Z")
 * // { since: "2026-11-26T03:00Z", hours: 9, bytes: 2 710 000 000 }
 */
export function unprotectedOf(plan: Plan, pool: Pool, now: string | null): Unprotected {
  const { paritySchedule } = pool;
  const since = paritySchedule?.lastUpdate ?? null;
  const until = firstFailure(plan, pool) ?? now;
  const elapsed = since === null || until === null ? null : Math.max(0, (Date.parse(until) - Date.parse(since)) / HOUR);
  const between = since === null || paritySchedule?.paused ? null : (paritySchedule?.everyHours ?? null);
  const hours = elapsed ?? between;
  const sets = dataSetsIn(plan, pool.id).filter(({ growth }) => growth !== undefined);
  const grows = (days: number) => sets.reduce((sum, set) => sum + sizeAfter(set, days) - set.bytes, 0);
  return { since, hours, bytes: hours === null || sets.length === 0 ? null : Math.round(grows(hours / 24)) };
}

/**
 * The same in a sentence.
 *
 * @example unprotectedWords({ since: "2026-11-26T03:00Z", hours: 9, bytes: 2.7e9 }, "TB")
 * // "What was changed after the last update, on 26 Nov 2026, is not protected: about 9 hours, in which the data
 * // grows by about 2.70 GB."
 */
export function unprotectedWords({ since, hours, bytes }: Unprotected, family: UnitFamily): string {
  if (since === null)
    return (
      "It is not known when the parity was last updated: take it that nothing that was changed lately is " +
      "protected."
    );
  const growth = bytes === null ? "" : `, in which the data grows by about ${formatBytes(bytes, family)}`;
  const long = hours === null ? "" : `: ${lengthWords(hours)}${growth}`;
  return `What was changed after the last update, on ${plainDayWords(since.slice(0, 10))}, is not protected${long}.`;
}
