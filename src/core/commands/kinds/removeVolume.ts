import type { CommandModule } from "../commandModule";
import { findPool, findVolume } from "../lookUp";

/** A volume taken away. */
export const removeVolume: CommandModule<"remove-volume"> = {
  apply: (plan, command) => {
    findVolume(plan, command.pool, command.volume);
    const pool = findPool(plan, command.pool);
    pool.volumes = pool.volumes.filter((volume) => volume.id !== command.volume);
  },
  describe: () => "removed a volume",
};
