import { counted } from "../../words/counted";
import { changeDrive, shelve } from "../driveChanges";
import type { CommandModule } from "../commandModule";

/** Several drives at once, from what they report of themselves; new ones go to the shelf. */
export const updateDrives: CommandModule<"update-drives"> = {
  apply: (plan, command) => {
    command.edits.forEach(({ drive, changes }) => changeDrive(plan, drive, changes));
    shelve(plan, command.added);
  },
  describe: ({ edits, added }) => `read the health of ${counted(edits.length + added.length, "drive")}`,
};
