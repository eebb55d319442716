import { groupOfDrive } from "../../box/members";
import { counted } from "../../words/counted";
import type { CommandModule } from "../commandModule";
import { findDrive, findGroup } from "../lookUp";
import { describedAnew, settleIn, takeOut } from "../membership";

/** Drives for a group. */
export const addToGroup: CommandModule<"add-to-group"> = {
  apply: (plan, command) => {
    const joining = command.drives.filter((id) => groupOfDrive(plan, id)?.group.id !== command.group);
    joining.forEach((id) => findDrive(plan, id));
    takeOut(plan, joining);
    const { group } = findGroup(plan, command.group);
    if (joining.length > 0) describedAnew(group);
    group.drives.push(...joining);
    settleIn(plan, joining);
  },
  describe: ({ drives }) => `added ${counted(drives.length, "drive")} to a group`,
};
