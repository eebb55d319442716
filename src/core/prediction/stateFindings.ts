import type { UnitFamily } from "../bytes/formatBytes";
import type { Drive, Pool } from "../document/plan";
import { goneWords } from "../drives/driveState";
import { nameOfDrive } from "../drives/nameOfDrive";
import type { Condition } from "../failures/condition";
import type { Finding } from "../findings/finding";
import { capital } from "../words/capital";
import { oneOrMany, plural } from "../words/counted";
import { listOf } from "../words/listOf";

/** A pool that may lack drives, as its findings see it. */
export interface StateView {
  pool: Pool;
  condition: Condition;
  drivesOf: (ids: readonly string[]) => Drive[];
  family: UnitFamily;
}

/** What a further failure would do to a pool that lacks drives, within a sentence. */
const further = (left: number): string =>
  left <= 0
    ? "if one more fails, data is lost"
    : `the loss of any ${oneOrMany(left, "one more drive", "more drives")} is survived`;

/** "The failed 4 TB drive in bay 2 … has failed": each drive that is gone, and how. */
function goneList(drives: readonly Drive[], family: UnitFamily): string {
  const names = drives.map((drive) => nameOfDrive(drive, family).replace(/^the (failed|missing) /, "the "));
  const [first] = drives;
  const all = drives.every((drive) => drive.state === first?.state);
  if (first && all)
    return (
      `${listOf(names)} ` +
      (drives.length === 1 ? goneWords(first) : first.state === "missing" ? "are missing" : "have failed")
    );
  return listOf(drives.map((drive, i) => `${names[i]} ${goneWords(drive)}`));
}

/** What of a pool's data is safe, first; then what is to be done. */
function stateMessage({ pool, condition, drivesOf, family }: StateView): string {
  const gone = capital(goneList(drivesOf(condition.missing), family));
  const name = pool.name || "this pool";
  const it = plural(condition.missing.length, "it", "them");
  const files =
    condition.unreadable.length === 0
      ? ""
      : ` The files on ${listOf(drivesOf(condition.unreadable).map((drive) => nameOfDrive(drive, family)))} ` +
        "cannot be read until they are restored; all others can.";
  switch (condition.state) {
    case "lost":
      return (
        `Nothing on ${name} can be read: only a backup brings it back. ${gone}. Do not create or format anything ` +
        "on its drives."
      );
    case "partly-lost":
      return (
        `Only what was on ${listOf(drivesOf(condition.unreadable).map((drive) => nameOfDrive(drive, family)))} ` +
        "is lost, and comes back from a backup. The other drives can be read."
      );
    case "rebuilding":
      return (
        `Nothing is lost. ${gone}, and another drive is being filled in its place: until that has ended, ` +
        `${further(condition.redundancyLeft)}.`
      );
    default:
      return `Nothing is lost. ${gone}: ${further(condition.redundancyLeft)}. Replace ${it} now.${files}`;
  }
}

/**
 * What state a pool is in where drives of it have failed or are missing: one finding, which says first whether the data
 * is safe. The page leads from it to what to do now.
 *
 * @example stateFindings(mirrorWithOneFailed)[0].message
 * // "Nothing is lost. The 4 TB drive in bay 2 … has failed: if one more fails, data is lost. Replace it now."
 */
export function stateFindings(view: StateView): Finding[] {
  const { state, redundancyLeft, missing } = view.condition;
  if (state === "whole") return [];
  return [
    {
      code: state === "lost" ? "pool-lost" : state === "partly-lost" ? "pool-partly-lost" : "pool-degraded",
      severity: redundancyLeft > 0 || state === "rebuilding" ? "warn" : "block",
      message: stateMessage(view),
      drives: missing,
    },
  ];
}
