import { driveInBay, leaveBay } from "../../box/bays";
import { groupOfDrive } from "../../box/members";
import type { Drive, Plan } from "../../document/plan";
import { bayOf } from "../../drives/drive";
import { isGone } from "../../drives/driveState";
import type { CommandModule } from "../commandModule";
import { driveWords } from "../driveWords";
import { findDrive } from "../lookUp";
import { describedAnew, release } from "../membership";
import { refuse } from "../refusal";

/** Puts a drive from the shelf in the place, and in the group, of the one that holds the bay. */
function takePlaceOf(plan: Plan, drive: Drive, occupant: Drive): void {
  const membership = groupOfDrive(plan, occupant.id);
  const isFree = groupOfDrive(plan, drive.id) === null;
  if (membership && isFree) {
    const { group } = membership;
    group.drives[group.drives.indexOf(occupant.id)] = drive.id;
    describedAnew(group);
  } else release(plan, [occupant.id]);
  drive.place = occupant.place;
  occupant.place = { shelf: true };
}

/** A drive into a bay, or onto the shelf; in a bay that is taken the two change places. */
export const moveDrive: CommandModule<"move-drive"> = {
  apply: (plan, command) => {
    const drive = findDrive(plan, command.drive);
    const { to } = command;
    if ("shelf" in to) {
      // One that is gone leaves a gap in its group, until another is in its place.
      if (isGone(drive)) leaveBay(drive);
      else {
        release(plan, [drive.id]);
        drive.place = { shelf: true };
      }
      return;
    }
    if (to.bay > plan.box.bays) refuse(`The box has no bay ${to.bay}.`);
    const occupant = driveInBay(plan, to.bay);
    if (occupant?.id === drive.id) return;
    if (!occupant) drive.place = to;
    else if (bayOf(drive) === null) takePlaceOf(plan, drive, occupant);
    else [drive.place, occupant.place] = [occupant.place, drive.place];
  },
  describe: ({ drive, to }, plan) =>
    `moved ${driveWords(plan, drive)} to ${"bay" in to ? `bay ${to.bay}` : "the shelf"}`,
};
