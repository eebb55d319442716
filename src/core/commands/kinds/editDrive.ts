import type { CommandModule } from "../commandModule";
import { changeDrive } from "../driveChanges";
import { driveWords } from "../driveWords";

/** What is known of a drive, changed by hand. */
export const editDrive: CommandModule<"edit-drive"> = {
  apply: (plan, command) => {
    changeDrive(plan, command.drive, command.changes);
  },
  describe: ({ drive }, plan) => `edited ${driveWords(plan, drive)}`,
};
