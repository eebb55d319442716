import { heightOn } from "../bands/occupied";
import type { Bytes } from "../bytes/bytes";
import type { BoxRules, Group, Plan, Pool } from "../document/plan";
import { roomOf } from "../drives/room";
import { claimedArray, keptArrays } from "../layouts/keptArrays";
import { roomsOfGroup } from "../layouts/layOutGroup";
import { layoutOf } from "../layouts/registry";
import { bandsOfGroup } from "./figures";
import { drivesOf } from "./find";

/**
 * The group with what its arrays keep written down, so that a change leaves it as it is.
 *
 * @param plan the box before the change
 * @param rewritten whether the change rewrites the arrays
 */
export function withKept(plan: Plan, group: Group, rules: BoxRules, rewritten = false): Group {
  if (!layoutOf(group.layout).keepsArrays) return group;
  const rooms = roomsOfGroup(group, drivesOf(plan, group.drives), rules);
  const bands = bandsOfGroup(plan, group, rules);
  // Unequal drives in zones are several bands of one array, which no box changes.
  if (layoutOf(group.layout).zonedWhenUnequal && bands.length > 1) return group;
  const kept = keptArrays(bands, rooms, rules.arrayFormat, group.kept);
  return { ...group, kept: rewritten ? kept.map((each) => ({ ...each, rewritten })) : kept };
}

/** The drives that stand by in a group's arrays. */
const sparesOf = (plan: Plan, pool: Pool, group: Group) => drivesOf(plan, [...pool.spares, ...(group.spares ?? [])]);

/**
 * The group after a claim: its drives are taken in as a whole, or one of them; an array over whole drives reaches up to
 * the smallest of all that stand in it, hot spares included.
 *
 * @param drive the drive whose space is claimed; all of them where none is named
 * @returns the same group where there is nothing to claim
 */
export function claimed(plan: Plan, pool: Pool, group: Group, rules: BoxRules, drive?: string): Group {
  if (layoutOf(group.layout).liesEndToEnd) return group;
  const { reach: old, ...rest } = group;
  const reach = drive === undefined ? [] : Object.entries(old ?? {}).filter(([id]) => id !== drive);
  const then: Group = old ? { ...rest, ...(reach.length > 0 ? { reach: Object.fromEntries(reach) } : {}) } : group;
  const [array] = group.kept ?? [];
  if (!array || layoutOf(group.layout).cutsAtSizes) return then;
  const rooms = roomsOfGroup(then, drivesOf(plan, then.drives), rules);
  const spares = sparesOf(plan, pool, group).map((spare) => roomOf(spare, rules));
  const next = claimedArray(
    array,
    [...rooms, ...spares].map((room) => room.between),
  );
  return next.used === array.used && next.usedMost === array.usedMost ? then : { ...then, kept: [next] };
}

/** The group as large as it can be, where a claim after a rewrite leaves its size open. */
export const atMost = (group: Group): Group =>
  group.kept?.some((each) => each.usedMost !== undefined)
    ? { ...group, kept: group.kept.map((each) => ({ ...each, offset: 0, used: each.usedMost ?? each.used })) }
    : group;

/**
 * The least that a hot spare of a pool must have between reserve and margin, in bytes, to stand in for any member: what
 * is used of the member of which least is, with what lies before its data. 0 where there is none to stand in for.
 */
export function leastForSpare(plan: Plan, pool: Pool, rules: BoxRules): Bytes {
  const heights = pool.groups.flatMap((group) => {
    const bands = bandsOfGroup(plan, group, rules);
    return drivesOf(plan, group.drives).map((drive) => heightOn(bands, drive.id, roomOf(drive, rules).systemReserve));
  });
  return heights.length === 0 ? 0 : Math.min(...heights);
}
