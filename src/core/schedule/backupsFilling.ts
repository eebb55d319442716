import { backupFullAfter, bytesOn } from "../data/backup";
import type { Backup, Plan } from "../document/plan";
import { formatBytes } from "../bytes/formatBytes";
import type { Finding } from "../findings/finding";
import { plainDayWords } from "../time/dateWords";
import { dayAfter } from "../time/days";
import type { Walk } from "../walk/moment";
import type { StepTimes } from "./stepTimes";

/** A backup of a plan, and after how many days it no longer holds what it backs up; null if not within 50 years. */
export interface BackupDemand {
  backup: Backup;
  fullAfter: number | null;
}

/** When the backups of a plan no longer hold their data; those of which nobody says how much fits are left out. */
export const backupDemands = (plan: Pick<Plan, "backups" | "dataSets">): BackupDemand[] =>
  (plan.backups ?? [])
    .filter((backup) => backup.bytes !== undefined && backup.dataSets.length > 0)
    .map((backup) => ({ backup, fullAfter: backupFullAfter(backup, plan.dataSets ?? []) }));

/**
 * That a backup no longer holds its data before the plan has ended, said of the step by which that is so; for each
 * step, by its id. A backup that is too small already says so on its own.
 *
 * @param times when the steps run, in days from the beginning of the plan
 * @param start the plan's first day as YYYY-MM-DD
 */
export function fillingFindings(
  { plan, family }: Walk,
  times: readonly StepTimes[],
  start: string,
): Map<string, Finding[]> {
  const found = new Map<string, Finding[]>();
  for (const { backup, fullAfter } of backupDemands(plan)) {
    if (fullAfter === null || fullAfter <= 0) continue;
    const at = plan.steps[times.findIndex(({ end }) => end >= fullAfter)]?.id;
    if (at === undefined) continue;
    const grown = formatBytes(bytesOn(backup, plan.dataSets ?? [], fullAfter), family);
    const finding: Finding = {
      code: "backup-fills-up",
      severity: "warn",
      message:
        `From ${plainDayWords(dayAfter(start, fullAfter))} on ${backup.name} no longer holds what it backs up: ` +
        `that has grown to ${grown}, and ${formatBytes(backup.bytes ?? 0, family)} fit. Make space there before, ` +
        "or back up less.",
      drives: backup.drive === undefined ? [] : [backup.drive],
    };
    found.set(at, [...(found.get(at) ?? []), finding]);
  }
  return found;
}

/** Findings of several sorts, those of one step together. */
export function mergedFindings(...sorts: readonly ReadonlyMap<string, Finding[]>[]): Map<string, Finding[]> {
  const all = new Map<string, Finding[]>();
  for (const sort of sorts) for (const [step, own] of sort) all.set(step, [...(all.get(step) ?? []), ...own]);
  return all;
}
