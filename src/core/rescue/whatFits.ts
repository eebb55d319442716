import { leastInPlaceOf, whyNotInPlaceOf } from "../box/standIn";
import { isFree } from "../box/members";
import { storedIn } from "../box/capacities";
import type { Drive, Group } from "../document/plan";
import { isGone } from "../drives/driveState";
import { bytesForRoom } from "../drives/room";
import { layoutOf } from "../layouts/registry";
import { heldBy } from "../steps/restoreDrive";
import type { RescueSetting, ToBuy } from "./rescue";

/** The drives that steps of the plan use already, but for those that bring a drive back. */
function spokenFor({ plan }: RescueSetting): Set<string> {
  return new Set(
    plan.steps.flatMap((step) => [
      ...("by" in step ? [step.by] : []),
      ...(step.kind === "set-spare" ? [step.drive] : []),
      ...("drives" in step ? step.drives : []),
    ]),
  );
}

/** What of a free drive's own speaks against it, as a part of a sentence. */
function whyNotNow(drive: Drive): string | null {
  const { reallocatedSectors = 0, pendingSectors = 0 } = drive.health;
  if (drive.contents) return "it holds data of its own, which would be erased";
  if (drive.health.state !== "good" || reallocatedSectors + pendingSectors > 0)
    return "it is worn: test it first, or use it for something else";
  return null;
}

/** The drives at hand that could take the place of one that is gone, the smallest first, and why the others cannot. */
export function whatFits(
  setting: RescueSetting,
  group: Group,
  old: Drive,
): { fits: Drive[]; fitsNot: { drive: string; why: string }[] } {
  const { plan, rules, family } = setting;
  const taken = spokenFor(setting);
  const fits: Drive[] = [];
  const fitsNot: { drive: string; why: string }[] = [];
  for (const drive of plan.drives) {
    if (!isFree(plan, drive.id) || drive.id === old.id || drive.toBuy || taken.has(drive.id)) continue;
    const why = whyNotInPlaceOf(plan, { group, old, next: drive }, rules, family) ?? whyNotNow(drive);
    if (why === null) fits.push(drive);
    else fitsNot.push({ drive: drive.id, why });
  }
  return { fits: fits.sort((a, b) => a.bytes - b.bytes), fitsNot };
}

/** The least that a drive to buy must have in the place of one that is gone, and its kind. */
export function leastToBuy({ plan, pool, rules }: RescueSetting, group: Group, old: Drive): ToBuy {
  // Of a drive with files of its own only those have to fit.
  const restores = isGone(old) && layoutOf(group.layout).independent === true && rules.parityWrites === "by-schedule";
  const isParity = group.options?.parityDrives?.includes(old.id) === true;
  const room =
    restores && !isParity && storedIn(pool) > 0
      ? heldBy(plan, pool, group, old, rules)
      : leastInPlaceOf(plan, group, old, rules);
  return {
    leastBytes: bytesForRoom(room, rules),
    medium: old.medium,
    bus: old.bus,
    logicalSector: old.logicalSector,
  };
}
