import { inText } from "../../layouts/inText";
import { layoutOf } from "../../layouts/registry";
import type { CommandModule } from "../commandModule";
import { putGroups } from "../newGroups";

/** A new pool of several groups of one layout. */
export const makeGroups: CommandModule<"make-groups"> = {
  apply: (plan, command) => {
    const { layout } = command;
    putGroups(plan, { pool: null, groups: command.groups.map((drives) => ({ layout, drives })) });
  },
  describe: ({ groups, layout }) => `made a pool of ${groups.length} ${inText(layoutOf(layout))} groups`,
};
