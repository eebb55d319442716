import { formatBytes } from "../bytes/formatBytes";
import { hoursFor } from "../time/hours";
import { NETWORKS } from "../time/speed";
import { poolOf, storedIn } from "./box";
import { missingPool } from "./checks";
import { against, noCost, type StepModule } from "./stepModule";

/** A full copy of a pool's data somewhere else. */
export const backUp: StepModule<"back-up"> = {
  kind: "back-up",
  name: "Back up",
  check: ({ plan }, step, { family }) => [
    ...missingPool(plan, step.pool),
    ...(poolOf(plan, step.pool)?.volumes.some((volume) => volume.usedBytes === undefined) ? [against("note", "stored-not-known", `How much is stored is not known for every volume; the hours are for all that they have (${formatBytes(storedIn(poolOf(plan, step.pool) ?? { id: "", name: "", groups: [], spares: [], volumes: [] }), family)}).`)] : []),
  ],
  apply: (state, step) => ({ ...state, backedUp: new Set([...state.backedUp, step.pool]) }),
  cost: ({ plan }, _after, step) => {
    const pool = poolOf(plan, step.pool);
    return noCost({ hours: hoursFor(pool ? storedIn(pool) : 0, step.rate ?? NETWORKS[0].rate), online: "slower" });
  },
  say: ({ plan }, step) => ({ does: `All data of ${poolOf(plan, step.pool)?.name ?? "the pool"} is copied to ${step.to || "another place"}, and the copy checked.`, why: "What follows rewrites or risks it." }),
};
