import { claimed } from "../box/arrays";
import { usableOfPool } from "../box/figures";
import { withParityNamed } from "../box/parityNamed";
import type { BoxState } from "../box/state";
import { MiB } from "../bytes/bytes";
import { floorTo } from "../bytes/floorTo";
import type { BoxRules, Pool } from "../document/plan";

/** What follows from a step by itself: parity drives are named; boxes that do so claim, and grow volume and files. */
export function settle(applied: BoxState, rules: BoxRules): BoxState {
  const plan = withParityNamed(applied.plan);
  const state = plan === applied.plan ? applied : { ...applied, plan };
  const claims =
    rules.claiming === "by-itself" &&
    state.plan.pools.some((pool) => pool.groups.some((group) => group.reach ?? group.kept));
  const grows = rules.growing === "by-itself" && state.plan.pools.some((pool) => pool.volumes.length > 0);
  if (!claims && !grows) return state;
  const pools = state.plan.pools.map((pool): Pool => {
    const groups = claims
      ? pool.groups.map((group) => (group.reach || group.kept ? claimed(state.plan, pool, group, rules) : group))
      : pool.groups;
    const taken = isSame(groups, pool.groups) ? pool : { ...pool, groups };
    if (!grows || pool.volumes.length === 0) return taken;
    const usable = usableOfPool({ ...state.plan, pools: [taken] }, taken, rules);
    const free = floorTo(usable - pool.volumes.reduce((sum, volume) => sum + volume.bytes, 0), MiB);
    const last = pool.volumes.length - 1;
    const volumes = pool.volumes.map((volume, v) => {
      if (volume.fileSystemBytes === undefined && !(v === last && free > 0)) return volume;
      const { fileSystemBytes: _bytes, ...rest } = volume;
      return v === last && free > 0 ? { ...rest, bytes: volume.bytes + free } : rest;
    });
    return isSame(volumes, pool.volumes) ? taken : { ...taken, volumes };
  });
  return isSame(pools, state.plan.pools) ? state : { ...state, plan: { ...state.plan, pools } };
}

/** What has not changed stays the very same, so that nothing is worked out of it again. */
const isSame = <T>(then: readonly T[], now: readonly T[]): boolean => then.every((each, i) => each === now[i]);
