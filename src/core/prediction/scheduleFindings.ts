import type { BoxRules, ParitySchedule, Pool } from "../document/plan";
import type { Condition } from "../failures/condition";
import type { Finding } from "../findings/finding";
import { hasParitySchedule } from "../layouts/hasParitySchedule";
import { layoutOf } from "../layouts/registry";
import { counted } from "../words/counted";

/** How many deleted files let an update wait for the owner, where one is proposed. */
const USUAL_LIMIT = 500;

/** How old what the parity does not protect can be, in words. */
function unprotectedWords(schedule: ParitySchedule | undefined): string {
  if (schedule?.lastUpdate === undefined)
    return "It is not known when its last update ended: take it that nothing new since then is protected.";
  const { everyHours, paused } = schedule;
  return paused
    ? "It is paused: nothing that was changed since its last update is protected."
    : `What was changed since the last update, in the last ${counted(everyHours, "hour")} at most, is not protected.`;
}

/**
 * What a pool whose parity is written by schedule does not protect, what stands against the next update, and what would
 * guard it.
 *
 * @example scheduleFindings(pool, condition, rules).map(({ code }) => code)
 * // ["schedule-over-a-loss", …] with a drive gone and the schedule running
 */
export function scheduleFindings(pool: Pool, { missing }: Condition, rules: Pick<BoxRules, "parityWrites">): Finding[] {
  if (!hasParitySchedule(pool, rules)) return [];
  const protectedGroups = pool.groups.filter(({ layout }) => layoutOf(layout).dedicatedParity !== undefined);
  const schedule = pool.paritySchedule;
  const gone = missing.filter((id) => protectedGroups.some((group) => group.drives.includes(id)));
  const findings: Finding[] = [];
  if (gone.length > 0 && !schedule?.paused)
    findings.push({
      code: "schedule-over-a-loss",
      severity: "block",
      message:
        "Stop the schedule of the parity first of all: its next update would record the loss, which is then for good.",
      drives: gone,
      mend: {
        label: "The schedule is stopped",
        command: {
          kind: "set-parity-schedule",
          pool: pool.id,
          schedule: { everyHours: 24, ...schedule, paused: true },
        },
      },
    });
  findings.push({
    code: "protected-as-of-last-update",
    severity: schedule?.paused && gone.length === 0 ? "warn" : "note",
    message: `Parity is written by schedule. ${unprotectedWords(schedule)} Stop the schedule at once when a drive fails.`,
    drives: [],
  });
  if (schedule && schedule.deletedLimit === undefined)
    findings.push({
      code: "no-deleted-limit",
      severity: "warn",
      message:
        "Nothing stops an update after many files have gone: it would record a mistake. Let it wait for you " +
        "beyond some.",
      drives: [],
      mend: {
        label: `Wait beyond ${USUAL_LIMIT} deleted files`,
        command: { kind: "set-parity-schedule", pool: pool.id, schedule: { ...schedule, deletedLimit: USUAL_LIMIT } },
      },
    });
  return findings;
}
