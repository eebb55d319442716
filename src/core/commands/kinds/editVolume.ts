import type { CommandModule } from "../commandModule";
import { findVolume } from "../lookUp";

/** What of a volume can be edited. */
export const editVolume: CommandModule<"edit-volume"> = {
  apply: (plan, command) => {
    Object.assign(findVolume(plan, command.pool, command.volume), command.changes);
  },
  describe: () => "edited a volume",
};
