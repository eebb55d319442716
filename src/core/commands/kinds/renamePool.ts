import type { CommandModule } from "../commandModule";
import { findPool } from "../lookUp";

/** Another name for a pool. */
export const renamePool: CommandModule<"rename-pool"> = {
  apply: (plan, command) => {
    findPool(plan, command.pool).name = command.name;
  },
  describe: ({ name }) => `renamed the pool to “${name}”`,
};
