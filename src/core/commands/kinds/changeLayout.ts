import { layoutOf } from "../../layouts/registry";
import type { CommandModule } from "../commandModule";
import { findGroup } from "../lookUp";

/** Another layout for a group. */
export const changeLayout: CommandModule<"change-layout"> = {
  apply: (plan, command) => {
    findGroup(plan, command.group).group.layout = command.layout;
  },
  describe: ({ layout }) => `changed the layout to ${layoutOf(layout).shortName}`,
};
