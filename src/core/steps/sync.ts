import { occupied } from "../bands/occupied";
import { verifyShare } from "../bands/workShare";
import { bandsOfPool } from "../box/figures";
import { drivesOf, poolOf } from "../box/find";
import { layoutOf } from "../layouts/registry";
import { bandHours } from "../speeds/bandHours";
import { missingPool } from "./checks";
import { against, noCost, type StepModule } from "./stepModule";

/** Scheduled parity brought up to date: files are protected as of this moment. */
export const sync: StepModule<"sync"> = {
  kind: "sync",
  name: "Sync the parity",
  paced: true,
  handles: () => [],
  label: () => sync.name,
  menu: {
    under: "pool",
    offers: (pool, { rules }) =>
      rules.parityWrites === "by-schedule" ? [{ label: sync.name, steps: [{ kind: "sync", pool: pool.id }] }] : [],
  },
  check: ({ plan }, step, { rules }) => [
    ...missingPool(plan, step.pool),
    ...(rules.parityWrites === "by-schedule"
      ? []
      : [against("note", "written-at-once", "Your box writes parity at once; there is nothing to sync.")]),
    ...(poolOf(plan, step.pool)?.groups.some((group) => !layoutOf(group.layout).dedicatedParity)
      ? [against("note", "no-parity-drives", "Only pools with parity drives are synced.")]
      : []),
  ],
  apply: (state) => state,
  cost: ({ plan }, _after, step, { rules }) => {
    const pool = poolOf(plan, step.pool);
    if (!pool || rules.parityWrites !== "by-schedule") return noCost({});
    const bands = bandsOfPool(plan, pool, rules);
    const used = occupied(bands);
    return noCost({
      hours: bandHours(bands, drivesOf(plan, [...used.keys()]), verifyShare, rules),
      work: [...used].map(([drive, bytes]) => ({ drive, reads: bytes, writes: 0 })),
      online: "slower",
    });
  },
  say: ({ plan }, step) => ({
    does: `The parity of ${poolOf(plan, step.pool)?.name ?? "the pool"} is brought up to date.`,
    why: "Files are protected as of the last sync. Never sync after a loss.",
  }),
};
