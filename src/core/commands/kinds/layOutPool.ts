import { layoutOf } from "../../layouts/registry";
import type { CommandModule } from "../commandModule";
import { findPool } from "../lookUp";
import { putGroups } from "../newGroups";

/** Other groups for a pool than those that it has, or a new pool; drives of it that are in none are left out. */
export const layOutPool: CommandModule<"lay-out-pool"> = {
  apply: (plan, command) => {
    if (command.pool !== null) findPool(plan, command.pool).groups = [];
    putGroups(plan, command);
  },
  describe: ({ groups }) => {
    const names = new Set(groups.map((group) => layoutOf(group.layout).shortName));
    return `laid out a pool as ${[...names].join(" and ")}${groups.length > 1 ? ` in ${groups.length} groups` : ""}`;
  },
};
