import { driveOf } from "../box/find";
import { LEAST_HANDS_MINUTES } from "../document/limits";
import type { Plan, Step } from "../document/plan";
import { bayOf } from "../drives/drive";
import { moduleOf } from "./registry";
import type { Attention } from "./stepModule";

/** How long it takes to begin a step, in minutes. */
export const MINUTES_TO_BEGIN: Record<Attention, number> = { box: LEAST_HANDS_MINUTES, screen: 15 };

/**
 * Whether a step is begun at the box or at the screen: whoever changes, adds or takes out a drive, or attaches one that
 * lies on the shelf to test, wipe or fill it, stands before the box.
 *
 * @param before the box before the step
 * @param after the box after it
 * @example attentionOf(replaceStep, before, after) // "box"
 */
export function attentionOf(step: Step, before: Plan, after: Plan): Attention {
  const own = moduleOf(step);
  const asked = own.attention?.(step, before);
  if (asked) return asked;
  const onShelf = (id: string) => {
    const drive = driveOf(before, id);
    return drive !== undefined && bayOf(drive) === null;
  };
  const moved = before.drives.some((drive) => bayOf(drive) !== bayOf(driveOf(after, drive.id) ?? drive));
  return moved || own.handles(step).some(onShelf) ? "box" : "screen";
}

/**
 * The drives that are still to be bought before a step, and that it takes in hand.
 *
 * @example boughtFor({ id: "s1", kind: "wipe-drive", drive: "d9" }, planWithD9ToBuy) // ["d9"]
 */
export function boughtFor(step: Step, before: Plan): string[] {
  const handled = new Set(moduleOf(step).handles(step));
  return before.drives.filter((drive) => drive.toBuy && handled.has(drive.id)).map((drive) => drive.id);
}
