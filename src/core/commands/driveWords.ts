import type { Plan } from "../document/plan";
import { shortSize } from "../drives/nameOfDrive";

/** A drive in the words of a notice: "the 4 TB drive". */
export function driveWords(plan: Plan, id: string): string {
  const drive = plan.drives.find((each) => each.id === id);
  return drive ? `the ${shortSize(drive, "TB")} drive` : "a drive";
}
