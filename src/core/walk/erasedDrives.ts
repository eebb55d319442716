import { driveOf } from "../box/find";
import { nameOfDriveFirst } from "../drives/nameOfDrive";
import type { Walk } from "./moment";

/** The drives that a plan erases, by serial, bay and size, each as it is before the step that erases it. */
export function erasedDrives({ moments, family }: Walk): { id: string; name: string }[] {
  const seen = new Map<string, string>();
  moments.forEach((moment, i) => {
    const before = moments[i - 1];
    for (const id of moment.walked?.cost.erased ?? []) {
      const drive = before && driveOf(before.state.plan, id);
      if (drive && !drive.toBuy && !seen.has(id)) seen.set(id, nameOfDriveFirst(drive, family));
    }
  });
  return [...seen].map(([id, name]) => ({ id, name }));
}
