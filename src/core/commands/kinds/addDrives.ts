import { counted } from "../../words/counted";
import type { CommandModule } from "../commandModule";
import { shelve } from "../driveChanges";

/** New drives, onto the shelf. */
export const addDrives: CommandModule<"add-drives"> = {
  apply: (plan, command) => {
    shelve(plan, command.drives);
  },
  describe: ({ drives }) => `added ${counted(drives.length, "drive")}`,
};
