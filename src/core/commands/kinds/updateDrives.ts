import { counted } from "../../words/counted";
import type { CommandModule } from "../commandModule";
import { changeDrive, shelve } from "../driveChanges";

/** Several drives at once, from what they report of themselves; new ones go to the shelf. */
export const updateDrives: CommandModule<"update-drives"> = {
  apply: (plan, command) => {
    command.edits.forEach(({ drive, changes }) => changeDrive(plan, drive, changes));
    shelve(plan, command.added);
  },
  describe: ({ edits, added }) => `read the health of ${counted(edits.length + added.length, "drive")}`,
};
