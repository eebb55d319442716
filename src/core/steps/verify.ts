import { occupied } from "../bands/occupied";
import { verifyShare } from "../bands/workShare";
import { usedShare } from "../box/capacities";
import { bandsOfPool, dataOfPool } from "../box/figures";
import { drivesOf, poolOf } from "../box/find";
import { bandHours } from "../speeds/bandHours";
import { missingPool } from "./checks";
import { noCost, type StepModule } from "./stepModule";

/** Everything read and compared with its copies or parity. */
export const verify: StepModule<"verify"> = {
  kind: "verify",
  name: "Check (scrub)",
  boxWork: () => "check",
  tells: ({ pool }, names) => [`Start a check (scrub) of ${names.pool(pool)}.`],
  paced: true,
  handles: () => [],
  label: () => verify.name,
  whileDegraded: "warn",
  menu: {
    under: "pool",
    offers: (pool) => [{ label: verify.name, steps: [{ kind: "verify", pool: pool.id }] }],
  },
  check: ({ plan }, step) => missingPool(plan, step.pool),
  apply: (state) => state,
  cost: ({ plan }, _after, step, { rules }) => {
    const pool = poolOf(plan, step.pool);
    if (!pool) return noCost({});
    const share = rules.rebuilding === "used-only" ? usedShare(pool, dataOfPool(plan, pool, rules)) : 1;
    const bands = bandsOfPool(plan, pool, rules);
    const read = new Map([...occupied(bands)].map(([drive, bytes]) => [drive, Math.round(bytes * share)]));
    return noCost({
      hours: bandHours(bands, drivesOf(plan, [...read.keys()]), verifyShare, rules, share),
      work: [...read].map(([drive, bytes]) => ({ drive, reads: bytes, writes: 0 })),
      online: "slower",
    });
  },
  say: ({ plan }, step) => ({
    does: `All of ${poolOf(plan, step.pool)?.name ?? "the pool"} is read and compared with its copies or parity.`,
    why: "It finds unreadable spots while they can still be repaired.",
  }),
};
