import { underParity } from "../bands/underParity";
import { verifyShare } from "../bands/workShare";
import { usedShare } from "../box/capacities";
import { bandsOfGroup, dataOfPool } from "../box/figures";
import { drivesOf, poolOf } from "../box/find";
import { passHours } from "../box/passHours";
import type { BoxRules, Group, Plan, Pool } from "../document/plan";
import { VERIFY_SHARE } from "../drives/rates";
import { layoutOf } from "../layouts/registry";
import { bandHours } from "../speeds/bandHours";
import { type Hours, longerHours, NO_HOURS } from "../time/hours";
import { workedThrough } from "./workedThrough";
import { missingPool } from "./checks";
import { noCost, type StepModule } from "./stepModule";

/** The groups of a pool are read side by side; what is given out in chunks as far as it is. */
function hoursOfGroup(plan: Plan, pool: Pool, group: Group, rules: BoxRules): Hours {
  const bands = bandsOfGroup(plan, group, rules);
  if (layoutOf(group.layout).chunked)
    return passHours(plan, workedThrough(plan, pool, group, rules), VERIFY_SHARE, rules, underParity(bands));
  const share = rules.rebuilding === "used-only" ? usedShare(pool, dataOfPool(plan, pool, rules)) : 1;
  return bandHours(bands, drivesOf(plan, group.drives), verifyShare, rules, share);
}

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
    const read = pool.groups.flatMap((group) => [...workedThrough(plan, pool, group, rules)]);
    return noCost({
      hours: pool.groups.map((group) => hoursOfGroup(plan, pool, group, rules)).reduce(longerHours, NO_HOURS),
      work: read.map(([drive, bytes]) => ({ drive, reads: bytes, writes: 0 })),
      online: "slower",
    });
  },
  say: ({ plan }, step) => ({
    does: `All of ${poolOf(plan, step.pool)?.name ?? "the pool"} is read and compared with its copies or parity.`,
    why: "It finds unreadable spots while they can still be repaired.",
  }),
};
