import { driveOf } from "../box/find";
import type { UnitFamily } from "../bytes/formatBytes";
import type { Drive, Plan, Step } from "../document/plan";
import { bayOf } from "../drives/drive";
import { markOfDrive, shortSize } from "../drives/nameOfDrive";
import { moduleOf } from "./registry";
import type { StepNames } from "./stepModule";

/** How drives are named in a few words, seen from the box before a step. */
function namesIn(before: Plan, unit: UnitFamily): StepNames {
  const size = (id: string) => {
    const drive = driveOf(before, id);
    if (!drive) return "a drive";
    const named = shortSize(drive, unit);
    const alike = (other: Drive) => other !== drive && bayOf(other) === null && shortSize(other, unit) === named;
    return bayOf(drive) === null && before.drives.some(alike) ? `${named} (${markOfDrive(drive)})` : named;
  };
  const place = (id: string) => {
    const drive = driveOf(before, id);
    const bay = drive ? bayOf(drive) : null;
    return bay === null ? size(id) : `${size(id)} in bay ${bay}`;
  };
  return { unit, size, place, list: (ids) => ids.map(size).join(" + ") };
}

/**
 * A step in a few words for lists, seen from the box before it.
 *
 * @example stepLabel(replaceStep, before, "TB") // "Replace 4 TB in bay 1 by 8 TB"
 */
export function stepLabel(step: Step, before: Plan, unit: UnitFamily): string {
  return moduleOf(step).label(step, namesIn(before, unit));
}
