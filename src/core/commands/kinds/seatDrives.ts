import { counted } from "../../words/counted";
import type { CommandModule } from "../commandModule";
import { driveWords } from "../driveWords";
import { seat } from "../membership";

/** Drives from the shelf into free bays, lowest number first. */
export const seatDrives: CommandModule<"seat-drives"> = {
  apply: (plan, command) => {
    seat(plan, command.drives);
  },
  describe: ({ drives: [first = "", ...more] }, plan) =>
    more.length === 0
      ? `put ${driveWords(plan, first)} in a free bay`
      : `put ${counted(more.length + 1, "drive")} in free bays`,
};
