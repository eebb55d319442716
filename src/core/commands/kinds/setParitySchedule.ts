import type { CommandModule } from "../commandModule";
import { findPool } from "../lookUp";

/** When the parity of a pool is written, or that nothing is known of it. */
export const setParitySchedule: CommandModule<"set-parity-schedule"> = {
  apply: (plan, { pool, schedule }) => {
    const found = findPool(plan, pool);
    if (schedule === null) delete found.paritySchedule;
    else found.paritySchedule = schedule;
  },
  describe: ({ schedule }) =>
    schedule?.paused ? "paused the schedule of the parity" : "changed the schedule of the parity",
};
