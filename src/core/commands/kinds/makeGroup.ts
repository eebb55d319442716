import { inText } from "../../layouts/inText";
import { layoutOf } from "../../layouts/registry";
import { counted } from "../../words/counted";
import type { CommandModule } from "../commandModule";
import { putGroups } from "../newGroups";

/** A group of drives, in a new pool or a further one of a pool. */
export const makeGroup: CommandModule<"make-group"> = {
  apply: (plan, command) => {
    putGroups(plan, { pool: command.pool, groups: [command] });
  },
  describe: ({ layout, drives }) =>
    `made a group of ${counted(drives.length, "drive")} with ${inText(layoutOf(layout))}`,
};
