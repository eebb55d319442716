import type { Plan, Step } from "../document/plan";
import { bayOf } from "../drives/drive";
import { driveOf } from "../box/find";

/** What a step needs of its owner to begin: a hand at the box, or a few clicks at the screen. */
export type Attention = "box" | "screen";

/** How long it takes to begin, in minutes. */
export const MINUTES_TO_BEGIN: Record<Attention, number> = { box: 45, screen: 15 };

/**
 * Whether a step is begun at the box or at the screen: whoever changes, adds or takes out a drive, attaches one to test
 * it or to copy to it, stands before the box.
 *
 * @param before the box before the step
 * @param after the box after it
 * @example attentionOf(replaceStep, before, after) // "box"
 */
export function attentionOf(step: Step, before: Plan, after: Plan): Attention {
  if (step.kind === "test-drive") {
    const drive = driveOf(before, step.drive);
    return drive && bayOf(drive) === null ? "box" : "screen";
  }
  if (step.kind === "back-up")
    return before.backups?.some((backup) => backup.id === step.to && backup.kind === "usb-drive") ? "box" : "screen";
  if (step.kind === "rebuild-from-backup" && step.box) return "box";
  return before.drives !== after.drives &&
    before.drives.some((drive) => bayOf(drive) !== bayOf(driveOf(after, drive.id) ?? drive))
    ? "box"
    : "screen";
}

/** The drives that are still to be bought before a step, and that it needs. */
export function boughtFor(step: Step, before: Plan, after: Plan): string[] {
  const named = "drive" in step && step.kind === "test-drive" ? [step.drive] : [];
  return before.drives
    .filter((drive) => drive.toBuy && (named.includes(drive.id) || driveOf(after, drive.id)?.toBuy !== true))
    .map((drive) => drive.id);
}
