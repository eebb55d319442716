import { MOST_DRIVES } from "../document/limits";
import type { Drive, DriveChanges, NewDrive, Plan } from "../document/plan";
import { freeId } from "../records/freeId";
import { findDrive } from "./lookUp";
import { refuse } from "./refusal";

const serialOf = (drive: { serial?: string | null }): string | undefined =>
  drive.serial?.trim().toLowerCase() || undefined;

/** Changes what is known of a drive; a field set to null is taken away. */
export function changeDrive(plan: Plan, id: string, changes: DriveChanges): void {
  const drive = findDrive(plan, id);
  const serial = serialOf(changes);
  if (serial && plan.drives.some((other) => other.id !== id && serialOf(other) === serial))
    refuse(`Another drive has the serial ${changes.serial} already.`);
  for (const [key, value] of Object.entries(changes)) {
    if (value === null) delete drive[key as keyof Drive];
    else Object.assign(drive, { [key]: value });
  }
}

/** Refuses so many more drives than a plan holds, and says how to go on. */
export function refuseTooMany(plan: Plan, more: number): void {
  const { length } = plan.drives;
  if (length + more <= MOST_DRIVES) return;
  const free = MOST_DRIVES - length;
  refuse(
    `A plan holds at most ${MOST_DRIVES} drives. This one has ${length}, so ` +
      `${free > 0 ? `only ${free} more can come` : "no more can come"}: remove drives that you no longer have, or ` +
      "begin another plan for another box.",
  );
}

/** Puts new drives on the shelf. */
export function shelve(plan: Plan, drives: readonly NewDrive[]): void {
  refuseTooMany(plan, drives.length);
  const serials = new Set(plan.drives.map(serialOf));
  for (const drive of drives) {
    const serial = serialOf(drive);
    if (serial && serials.has(serial)) refuse(`A drive with the serial ${drive.serial} is in the plan already.`);
    serials.add(serial);
    const id = freeId(
      "d",
      plan.drives.map((each) => each.id),
    );
    plan.drives.push({ id, ...drive, place: { shelf: true } });
  }
}
