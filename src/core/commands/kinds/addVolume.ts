import type { CommandModule } from "../commandModule";
import { freeId } from "../../records/freeId";
import { findPool } from "../lookUp";

/** A volume for a pool. */
export const addVolume: CommandModule<"add-volume"> = {
  apply: (plan, command) => {
    const id = freeId(
      "v",
      plan.pools.flatMap((pool) => pool.volumes.map((volume) => volume.id)),
    );
    findPool(plan, command.pool).volumes.push({ id, ...command.volume });
  },
  describe: ({ volume }) => `added the volume “${volume.name}”`,
};
