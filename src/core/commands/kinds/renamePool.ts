import { findPool } from "../lookUp";
import type { CommandModule } from "../commandModule";

/** Another name for a pool. */
export const renamePool: CommandModule<"rename-pool"> = {
  apply: (plan, command) => {
    findPool(plan, command.pool).name = command.name;
  },
  describe: ({ name }) => `renamed the pool to “${name}”`,
};
