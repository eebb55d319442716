import type { Drive, Plan } from "../document/plan";

/** The drive in a bay, or null when the bay is free. */
export function driveInBay(plan: Plan, bay: number): Drive | null {
  return plan.drives.find((drive) => "bay" in drive.place && drive.place.bay === bay) ?? null;
}

/** The drives on the shelf, in the order of the plan. */
export function drivesOnShelf(plan: Plan): Drive[] {
  return plan.drives.filter((drive) => "shelf" in drive.place);
}

/** Takes a drive that is gone out of its bay, which is kept as its last one. For use inside a change of the plan. */
export function leaveBay(drive: Drive): void {
  if (!("bay" in drive.place)) return;
  drive.lastBay = drive.place.bay;
  drive.place = { shelf: true };
}

/** The lowest free bay, or null. */
export function freeBay(plan: Plan): number | null {
  for (let bay = 1; bay <= plan.box.bays; bay += 1) if (driveInBay(plan, bay) === null) return bay;
  return null;
}
