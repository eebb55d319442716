import { counted } from "../../words/counted";
import type { CommandModule } from "../commandModule";
import { findDrive, findPool } from "../lookUp";
import { settleIn, takeOut } from "../membership";

/** A cache or log beside a pool. */
export const setHelper: CommandModule<"set-helper"> = {
  apply: (plan, command) => {
    const { drives, role } = command;
    drives.forEach((id) => findDrive(plan, id));
    takeOut(plan, drives);
    const pool = findPool(plan, command.pool);
    pool.helpers = [...(pool.helpers ?? []), ...drives.map((drive) => ({ drive, role }))];
    settleIn(plan, drives);
  },
  describe: ({ drives, role }) =>
    `made ${counted(drives.length, "drive")} a ${role === "read-cache" ? "read cache" : "write log"}`,
};
