import { counted } from "../../words/counted";
import { shelve } from "../driveChanges";
import type { CommandModule } from "../commandModule";

/** New drives, onto the shelf. */
export const addDrives: CommandModule<"add-drives"> = {
  apply: (plan, command) => {
    shelve(plan, command.drives);
  },
  describe: ({ drives }) => `added ${counted(drives.length, "drive")}`,
};
