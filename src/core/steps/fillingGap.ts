import { driveInBay, freeBay, leaveBay } from "../box/bays";
import { driveOf, drivesOf, groupOf, poolOfGroup } from "../box/find";
import { isFree } from "../box/members";
import { type InPlaceOf, TOO_SMALL, whyNotInPlaceOf } from "../box/standIn";
import type { Drive, Group, Plan, Pool } from "../document/plan";
import { bayOf } from "../drives/drive";
import { isGone } from "../drives/driveState";
import type { Finding } from "../findings/finding";
import { capital } from "../words/capital";
import { missingDrives, named } from "./checks";
import { seated } from "./inPlaceOf";
import { against, type StepSetting } from "./stepModule";

// What the steps have in common that put a drive in the place of one that is gone.

/** What such a step names. */
interface Filling {
  group: string;
  drive: string;
  by: string;
}

/** A gap of a group, with the drive that is to fill it, which can be the missing one itself. */
export interface Gap extends InPlaceOf {
  pool: Pool;
  /** The other drives of the group. */
  others: Drive[];
}

/** Whether a drive is a hot spare of a group. */
export const isSpareOf = (pool: Pool, group: Group, drive: string): boolean =>
  pool.spares.includes(drive) || group.spares?.includes(drive) === true;

/**
 * The bay in which a drive ends that is put in the place of one that is gone: its own, that of the old one, or a free
 * one; null where there is none.
 */
export function bayFor(plan: Plan, old: Drive, next: Drive): number | null {
  const own = bayOf(next);
  if (own !== null) return own;
  const last = bayOf(old) ?? old.lastBay ?? null;
  const isOpen = last !== null && [null, old.id].includes(driveInBay(plan, last)?.id ?? null);
  return isOpen ? last : freeBay(plan);
}

/**
 * Puts a drive in the place of one that is gone, which leaves its bay where the new one goes into it. For use inside
 * `changed`.
 */
export function seatInPlaceOf(plan: Plan, old: Drive, next: Drive): void {
  const bay = bayFor(plan, old, next);
  if (next.id !== old.id && bay !== null && bayOf(old) === bay) leaveBay(old);
  seated(next, bay);
}

/** That a drive that was thrown out is not put back; one that was only loose may be. */
function checkPutBack(plan: Plan, old: Drive, setting: StepSetting): Finding[] {
  if (old.state === "missing") return [];
  const message =
    `${capital(named(plan, old.id, setting))} is not to be put back: a drive that was thrown out fails again. ` +
    "Use another.";
  return [against("block", "drive-gone", message, [old.id])];
}

/** That the drive which comes is free, or a spare, and that there is a bay for it. */
function checkComing(plan: Plan, { pool, group, old, next }: Gap, setting: StepSetting): Finding[] {
  const found: Finding[] = [];
  const name = named(plan, next.id, setting);
  if (!isFree(plan, next.id) && !isSpareOf(pool, group, next.id))
    found.push(
      against("block", "drive-taken", `${capital(name)} is in use at this moment. Choose a free drive.`, [next.id]),
    );
  if (bayFor(plan, old, next) === null)
    found.push(against("block", "no-free-bay", `No bay is free for ${name}.`, [next.id]));
  return found;
}

/**
 * The gap that a step is about, where the drives are as they should be: one gone, and another that can be put in its
 * place; else what stands against it.
 *
 * @example lookUpGap(planWithD2Failed, { group: "g1", drive: "d2", by: "x1" }, setting)
 * // { ok: true, gap: { old: d2, next: x1, … } }
 */
export function lookUpGap(
  plan: Plan,
  step: Filling,
  setting: StepSetting,
): { ok: true; gap: Gap } | { ok: false; found: Finding[] } {
  const refused = (...found: Finding[]) => ({ ok: false as const, found });
  const missing = missingDrives(plan, [...new Set([step.drive, step.by])]);
  if (missing.length > 0) return refused(...missing);
  const [pool, group] = [poolOfGroup(plan, step.group), groupOf(plan, step.group)];
  const [old, next] = [driveOf(plan, step.drive), driveOf(plan, step.by)];
  const name = capital(named(plan, step.drive, setting));
  if (!pool || !group?.drives.includes(step.drive) || !old || !next)
    return refused(against("block", "not-a-member", `${name} is in no such group at this moment.`, [step.drive]));
  if (!isGone(old)) {
    const message = `${name} works. Replace it with the old one still in its bay where your box can, or say that it has failed.`;
    return refused(against("block", "not-gone", message, [step.drive]));
  }
  const others = drivesOf(plan, group.drives).filter((drive) => drive.id !== old.id);
  const gap = { pool, group, old, next, others };
  const found = old === next ? checkPutBack(plan, old, setting) : checkComing(plan, gap, setting);
  return found.length > 0 ? refused(...found) : { ok: true, gap };
}

/** That the drive which comes is large enough and goes with the others; of one that is gone itself, more is said. */
export function checkFit(plan: Plan, gap: Gap, setting: StepSetting): Finding[] {
  const { next } = gap;
  const why = isGone(next) ? null : whyNotInPlaceOf(plan, gap, setting.rules, setting.family);
  if (why === null) return [];
  const code = why.startsWith(TOO_SMALL) ? "too-small" : "does-not-fit-in";
  return [against("block", code, `${capital(named(plan, next.id, setting))} cannot stand in: ${why}.`, [next.id])];
}
