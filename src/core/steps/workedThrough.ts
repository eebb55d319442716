import { occupied } from "../bands/occupied";
import { usedShare } from "../box/capacities";
import { bandsOfGroup, dataOfPool } from "../box/figures";
import type { Bytes } from "../bytes/bytes";
import type { BoxRules, Group, Plan, Pool } from "../document/plan";
import { layoutOf } from "../layouts/registry";
import { filledOf } from "./filledOf";

/**
 * How much of each drive of a group such work goes through that looks at all there is: what its arrays occupy, in a box
 * that looks only at what is used the share of it that is stored. Of chunks it is what has been given out, in every
 * box: where nothing has been stored there is no copy or parity. Where nobody says how much is stored, it is all.
 *
 * @returns bytes by drive
 * @example workedThrough(plan, pool, raid5OfThree4TB, rules).get("d1") // 4 000 786 153 472
 */
export function workedThrough(plan: Plan, pool: Pool, group: Group, rules: BoxRules): Map<string, Bytes> {
  const all = occupied(bandsOfGroup(plan, group, rules));
  if (layoutOf(group.layout).chunked)
    return pool.volumes.length === 0 ? all : new Map(Object.entries(filledOf(plan, pool, group, rules)));
  const share = rules.rebuilding === "used-only" ? usedShare(pool, dataOfPool(plan, pool, rules)) : 1;
  return new Map([...all].map(([drive, bytes]) => [drive, Math.round(bytes * share)]));
}
