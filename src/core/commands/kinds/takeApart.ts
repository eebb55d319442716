import type { CommandModule } from "../commandModule";
import { findGroup } from "../lookUp";
import { release } from "../membership";

/** A group taken apart: its drives stay in their bays. */
export const takeApart: CommandModule<"take-apart"> = {
  apply: (plan, command) => {
    release(plan, findGroup(plan, command.group).group.drives);
  },
  describe: () => "dissolved a group",
};
