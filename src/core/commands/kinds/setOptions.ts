import type { CommandModule } from "../commandModule";
import { findGroup } from "../lookUp";

/** What can be chosen about a group. */
export const setOptions: CommandModule<"set-options"> = {
  apply: (plan, command) => {
    findGroup(plan, command.group).group.options = command.options;
  },
  describe: () => "changed a group's options",
};
