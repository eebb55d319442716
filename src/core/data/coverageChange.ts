import type { UnitFamily } from "../bytes/formatBytes";
import type { Plan } from "../document/plan";
import { nameOfDriveFirst } from "../drives/nameOfDrive";
import type { Finding } from "../findings/finding";
import { plural } from "../words/counted";
import { listOf } from "../words/listOf";
import { coverage } from "./coverage";

/**
 * What a step means for the backups that are on drives it erases: they are gone, and where the drive gives redundancy
 * from then on, which data is now covered by what, and which no longer has a second place.
 *
 * @param before the box before the step, `after` the box after it, still with the backups
 * @param erased ids of the drives that the step erases
 * @returns the findings, and the plan after the step without the backups that are gone
 */
export function loseBackups(
  before: Plan,
  after: Plan,
  erased: readonly string[],
  day: string | null,
  family: UnitFamily,
): { plan: Plan; findings: Finding[] } {
  const gone = (after.backups ?? []).filter((backup) => backup.drive !== undefined && erased.includes(backup.drive));
  if (gone.length === 0) return { plan: after, findings: [] };
  const { backups: _all, ...rest } = after;
  const left = (after.backups ?? []).filter((backup) => !gone.includes(backup));
  const plan: Plan = left.length > 0 ? { ...rest, backups: left } : rest;
  const then = coverage(plan, day);
  const nameOfSet = (id: string) => before.dataSets?.find((set) => set.id === id)?.name ?? id;
  const findings = gone.map((backup): Finding => {
    const drive = before.drives.find((each) => each.id === backup.drive);
    const where = drive ? nameOfDriveFirst(drive, family) : "The drive";
    const held = then.filter((each) => backup.dataSets.includes(each.dataSet));
    const taken = after.pools.some(
      (pool) =>
        held.some((each) => each.pool === pool.id) &&
        pool.groups.some((group) => group.drives.includes(backup.drive ?? "")),
    );
    const covered = held
      .filter((each) => taken && each.outcomes["one-failure"].kind === "kept")
      .map((each) => nameOfSet(each.dataSet));
    const alone = held.filter((each) => each.backups.length === 0).map((each) => nameOfSet(each.dataSet));
    const sentences = [
      `${where} was the backup ` +
        `“${backup.name}”${backup.dataSets.length > 0 ? ` of ${listOf(backup.dataSets.map(nameOfSet))}` : ""}; ` +
        "that copy is erased.",
      ...(covered.length > 0 ? [`From then on one failed drive no longer costs ${listOf(covered)}.`] : []),
      ...(alone.length > 0
        ? [
            `${listOf(alone)} ${plural(alone.length, "has", "have")} no second place any more: a deletion by ` +
              `mistake, a theft or a fire takes ${plural(alone.length, "it", "them")}.`,
          ]
        : []),
    ];
    return {
      code: taken ? "backup-becomes-redundancy" : "backup-erased",
      severity: "warn",
      message: sentences.join(" "),
      drives: backup.drive ? [backup.drive] : [],
    };
  });
  return { plan, findings };
}
