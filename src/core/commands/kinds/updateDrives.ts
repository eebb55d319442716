import { counted, plural } from "../../words/counted";
import type { CommandModule } from "../commandModule";
import { withEarlier } from "../../drives/wear";
import { changeDrive, shelve } from "../driveChanges";
import { findDrive } from "../lookUp";

/** Several drives at once, from what they report of themselves or what is on their labels; new ones go to the shelf. */
export const updateDrives: CommandModule<"update-drives"> = {
  apply: (plan, command) => {
    command.edits.forEach(({ drive, changes }) => {
      const before = findDrive(plan, drive).health;
      const { health } = changes;
      changeDrive(plan, drive, health ? { ...changes, health: withEarlier(before, health) } : changes);
    });
    shelve(plan, command.added);
  },
  describe: ({ edits, added }) =>
    added.length === 0 && edits.every(({ changes }) => Object.keys(changes).join() === "serial")
      ? `noted ${plural(edits.length, "the serial number", "the serial numbers")} of ${counted(edits.length, "drive")}`
      : `read the health of ${counted(edits.length + added.length, "drive")}`,
};
