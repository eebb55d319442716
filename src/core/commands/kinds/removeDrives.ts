import { counted } from "../../words/counted";
import type { CommandModule } from "../commandModule";
import { findDrive } from "../lookUp";
import { release } from "../membership";

/** Drives that are no longer part of the plan. */
export const removeDrives: CommandModule<"remove-drives"> = {
  apply: (plan, command) => {
    command.drives.forEach((id) => findDrive(plan, id));
    release(plan, command.drives);
    plan.drives = plan.drives.filter((drive) => !command.drives.includes(drive.id));
  },
  describe: ({ drives }) => `removed ${counted(drives.length, "drive")}`,
};
