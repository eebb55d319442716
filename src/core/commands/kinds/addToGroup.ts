import { groupOfDrive } from "../../box/members";
import { counted } from "../../words/counted";
import { inText } from "../../layouts/inText";
import { layoutOf } from "../../layouts/registry";
import type { CommandModule } from "../commandModule";
import { findDrive, findGroup } from "../lookUp";
import { describedAnew, settleIn, takeOut } from "../membership";

/** Drives for a group, which can get another layout with them. */
export const addToGroup: CommandModule<"add-to-group"> = {
  apply: (plan, command) => {
    const joining = command.drives.filter((id) => groupOfDrive(plan, id)?.group.id !== command.group);
    joining.forEach((id) => findDrive(plan, id));
    takeOut(plan, joining);
    const { group } = findGroup(plan, command.group);
    if (joining.length > 0) describedAnew(group);
    group.drives.push(...joining);
    if (command.layout !== undefined) group.layout = command.layout;
    settleIn(plan, joining);
  },
  describe: ({ drives, layout }) =>
    `added ${counted(drives.length, "drive")} to a group${layout ? `, now ${inText(layoutOf(layout))}` : ""}`,
};
