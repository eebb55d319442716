import { fateOfPool } from "../box/figures";
import { drivesOf, poolOf, poolOfGroup } from "../box/find";
import { goneIn, goneOf } from "../box/gone";
import { groupOfDrive } from "../box/members";
import type { BoxState } from "../box/state";
import type { Plan, Pool, Step } from "../document/plan";
import { nameOfDrive, nameOfDriveFirst } from "../drives/nameOfDrive";
import type { Finding } from "../findings/finding";
import { plural } from "../words/counted";
import { listOf } from "../words/listOf";
import { moduleOf } from "./registry";
import { against, type StepSetting } from "./stepModule";

// What stands against any step on a pool that lacks a drive: nothing else is done to it until that is mended.

/** The pool that a step is about; undefined where it is about none. */
export function poolOfStep(plan: Plan, step: Step): Pool | undefined {
  if ("pool" in step) return poolOf(plan, step.pool);
  if ("group" in step) return poolOfGroup(plan, step.group);
  return "drive" in step && step.drive !== undefined ? groupOfDrive(plan, step.drive)?.pool : undefined;
}

/** Whether a step is the answer to a drive that is gone: it puts another in its place, or leaves it out for good. */
const mends = (plan: Plan, step: Step): boolean => goneIn(plan).has(moduleOf(step).answers?.(step) ?? "");

/** That no drive is put to use which has failed or is not there. */
function usesGone(plan: Plan, step: Step, { family }: StepSetting): Finding[] {
  const gone = goneIn(plan);
  const back = moduleOf(step).answers?.(step);
  const ids = moduleOf(step)
    .handles(step)
    .filter((id) => gone.has(id) && id !== back);
  return drivesOf(plan, [...new Set(ids)]).map((drive) =>
    against("block", "drive-gone", `${nameOfDriveFirst(drive, family)} cannot be used. Choose another drive.`, [
      drive.id,
    ]),
  );
}

/** That its pool is to be mended first, or that nothing of it is left. */
function onPoolThatLacks(plan: Plan, step: Step, { rules, family }: StepSetting): Finding[] {
  const pool = poolOfStep(plan, step);
  const lacks = pool ? goneOf(plan, pool) : [];
  if (!pool || lacks.length === 0 || mends(plan, step)) return [];
  const { whileDegraded, restoresLost } = moduleOf(step);
  if (fateOfPool(plan, pool, rules).kind === "lost") {
    const message =
      `Nothing on ${pool.name || "the pool"} can be read: only a backup brings it back. Create and format ` +
      "nothing on its drives before you have given them up.";
    return restoresLost ? [] : [against("block", "pool-lost", message, lacks)];
  }
  if (whileDegraded === undefined) return [];
  const names = listOf(drivesOf(plan, lacks).map((drive) => nameOfDrive(drive, family)));
  const message =
    `${pool.name || "The pool"} lacks ${names}: replace ${plural(lacks.length, "it", "them")} first. Until then ` +
    "nothing else is to be done to this pool.";
  return [against(whileDegraded, "degraded", message, lacks)];
}

/**
 * What stands against a step, with what does so because drives have failed or are missing: it would use one of them, or
 * work on a pool that has to be mended first, or of which nothing is left.
 *
 * @param state the box before the step
 * @param found what its own check has found
 * @returns just that where no drive of the box is gone
 */
export function goneFindings({ plan }: BoxState, step: Step, setting: StepSetting, found: Finding[]): Finding[] {
  if (goneIn(plan).size === 0) return found;
  const uses = found.some(({ code }) => code === "drive-gone") ? [] : usesGone(plan, step, setting);
  return [...found, ...uses, ...onPoolThatLacks(plan, step, setting)];
}
