import { inText } from "../../layouts/inText";
import { layoutOf } from "../../layouts/registry";
import type { CommandModule } from "../commandModule";
import { findGroup } from "../lookUp";
import { describedAnew } from "../membership";

/** Another layout for a group. */
export const changeLayout: CommandModule<"change-layout"> = {
  apply: (plan, command) => {
    const { group } = findGroup(plan, command.group);
    group.layout = command.layout;
    describedAnew(group);
  },
  describe: ({ layout }) => `changed the layout to ${inText(layoutOf(layout))}`,
};
