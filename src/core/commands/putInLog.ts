import type { LogEntry, Plan } from "../document/plan";
import { freeRecordId } from "../logbook/records";

/** Puts entries into the log of a draft, which stays in the order in which they began, and gives them ids. */
export function putInLog(plan: Plan, entries: readonly Omit<LogEntry, "id">[]): void {
  if (entries.length === 0) return;
  const log = (plan.log ??= []);
  let next = Number(freeRecordId("l", log).slice(1));
  for (const entry of entries) {
    log.push({ ...entry, id: `l${next}` });
    next += 1;
  }
  const isInOrder = log.every(({ start }, i) => Date.parse(log[i - 1]?.start ?? start) <= Date.parse(start));
  if (!isInOrder) log.sort((a, b) => Date.parse(a.start) - Date.parse(b.start));
}
