import { counted } from "../../words/counted";
import type { CommandModule } from "../commandModule";
import { driveWords } from "../driveWords";
import { findDrive, findGroup, findPool } from "../lookUp";
import { settleIn, takeOut } from "../membership";

/** Hot spares for a pool, or for one group of it. */
export const setSpare: CommandModule<"set-spare"> = {
  apply: (plan, command) => {
    const { drives, group, pool } = command;
    drives.forEach((id) => findDrive(plan, id));
    takeOut(plan, drives);
    if (group === undefined) findPool(plan, pool).spares.push(...drives);
    else {
      const target = findGroup(plan, group).group;
      target.spares = [...(target.spares ?? []), ...drives];
    }
    settleIn(plan, drives);
  },
  describe: ({ drives: [first = "", ...more] }, plan) =>
    more.length === 0
      ? `made ${driveWords(plan, first)} a hot spare`
      : `made ${counted(more.length + 1, "drive")} hot spares`,
};
