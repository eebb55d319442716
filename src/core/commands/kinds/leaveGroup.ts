import { counted } from "../../words/counted";
import type { CommandModule } from "../commandModule";
import { findDrive } from "../lookUp";
import { release } from "../membership";

/** Drives out of their groups, the spares or the cache. */
export const leaveGroup: CommandModule<"leave-group"> = {
  apply: (plan, command) => {
    command.drives.forEach((id) => findDrive(plan, id));
    release(plan, command.drives);
  },
  describe: ({ drives }) => `removed ${counted(drives.length, "drive")} from a group`,
};
