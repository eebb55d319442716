import { heightOn } from "../bands/occupied";
import { freeBay } from "../box/bays";
import { groupOfDrive, isAvailable } from "../box/members";
import { bandsOfGroup } from "../box/figures";
import { driveOf } from "../box/find";
import type { Drive, Group, Plan, StepBody } from "../document/plan";
import { bayOf } from "../drives/drive";
import { nameOfDrive } from "../drives/nameOfDrive";
import { roomOf } from "../drives/room";
import type { UnitFamily } from "../bytes/formatBytes";
import type { Finding } from "../findings/finding";
import { layoutOf } from "../layouts/registry";
import { rulesOf } from "../rules/ruleSets";

/** The smallest free drive that can take a member's place: sound, empty, of the same kind, and large enough. */
function partnerFor(plan: Plan, old: Drive): Drive | undefined {
  const owner = groupOfDrive(plan, old.id);
  if (!owner) return undefined;
  const rules = rulesOf(plan.box.rules);
  const height = heightOn(bandsOfGroup(plan, owner.group, rules), old.id, roomOf(old, rules).systemReserve);
  return plan.drives
    .filter(
      (drive) =>
        isAvailable(plan, drive.id) &&
        drive.contents === undefined &&
        drive.health.state === "good" &&
        drive.medium === old.medium &&
        drive.logicalSector === old.logicalSector &&
        roomOf(drive, rules).between >= height,
    )
    .sort((a, b) => a.bytes - b.bytes)[0];
}

/** The step that puts a drive in the place of another; undefined where nothing could be filled from the others. */
function stepFor(
  plan: Plan,
  { id: group, layout: id, options = {} }: Group,
  drive: string,
  next: Drive,
): StepBody | undefined {
  const layout = layoutOf(id);
  if (layout.dedicatedParity && options.parityDrives?.includes(drive))
    return { kind: "change-parity-drive", group, drive, by: next.id };
  const hasBay = bayOf(next) !== null || freeBay(plan) !== null;
  const attached = rulesOf(plan.box.rules).replacing === "old-attached" && !layout.takesNoSpare && hasBay;
  if (!attached && layout.nominalTolerance(options) === 0) return undefined;
  return { kind: "replace-drive", drive, by: next.id, how: attached ? "attached" : "pulled" };
}

/**
 * The step that replaces a member by a free drive, as a mend: with the old one still in where the box can do that and
 * has a bay for it. Never one that only takes it out.
 *
 * @returns undefined where no free drive would do, or nothing can be filled from the others
 * @example replacementMend(plan, "d2", "TB")?.label // "Replace it by the 4 TB drive on the shelf…"
 */
export function replacementMend(plan: Plan, id: string, family: UnitFamily): Finding["mend"] {
  const [old, owner] = [driveOf(plan, id), groupOfDrive(plan, id)];
  const next = old && partnerFor(plan, old);
  const step = owner && next ? stepFor(plan, owner.group, id, next) : undefined;
  if (!next || !step) return undefined;
  const [first] = plan.steps;
  return {
    label: `Replace it by ${nameOfDrive(next, family)}`,
    command: { kind: "insert-steps", ...(first ? { before: first.id } : {}), steps: [step] },
  };
}
