import type { CommandModule } from "../commandModule";
import { findPool } from "../lookUp";
import { refuse } from "../refusal";

/** A pool as the landing place of another, or that ended. */
export const setLanding: CommandModule<"set-landing"> = {
  apply: (plan, command) => {
    const pool = findPool(plan, command.pool);
    if (command.landsFor === null) delete pool.landsFor;
    else if (command.landsFor === command.pool) refuse("A pool cannot be its own landing place.");
    else pool.landsFor = findPool(plan, command.landsFor).id;
  },
  describe: ({ landsFor }) => (landsFor === null ? "ended a landing place" : "made a pool a landing place"),
};
