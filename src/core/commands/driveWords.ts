import type { Plan } from "../document/plan";
import { markOfDrive, shortSize } from "../drives/nameOfDrive";

/** A drive in the words of a notice: "the 4 TB drive", and which one where there are others of its size. */
export function driveWords(plan: Plan, id: string): string {
  const drive = plan.drives.find((each) => each.id === id);
  if (!drive) return "a drive";
  const size = shortSize(drive, "TB");
  const alike = plan.drives.some((other) => other !== drive && shortSize(other, "TB") === size);
  return `the ${size} drive${alike ? ` (${markOfDrive(drive)})` : ""}`;
}
