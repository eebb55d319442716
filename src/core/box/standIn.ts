import { heightOn } from "../bands/occupied";
import { parityOf } from "../bands/parityOf";
import type { Bytes } from "../bytes/bytes";
import { formatBytes, type UnitFamily } from "../bytes/formatBytes";
import type { BoxRules, Drive, Group, Mixing, Plan, Pool } from "../document/plan";
import { goneWords, isGone } from "../drives/driveState";
import { limitedRoom, roomOf } from "../drives/room";
import { shortBy } from "../drives/shortBy";
import { layoutOf } from "../layouts/registry";
import { ownValue } from "../records/ownValue";
import { bandsOfGroup, fateOfPool } from "./figures";
import { driveOf, drivesOf } from "./find";

/** How a reason begins that a drive is too small. */
export const TOO_SMALL = "it is too small by";

/** Why a spare does nothing for a group, where the box gives each to one. */
export const OF_ANOTHER_GROUP = "your box gives it to another group";

const matters = (mixing: Mixing): boolean => mixing === "warn" || mixing === "block";

/** A drive that would stand in for one of a group. */
export interface InPlaceOf {
  group: Group;
  /** The one that is gone, or will be. */
  old: Drive;
  next: Drive;
}

/**
 * The least that a drive must have between reserve and margin to stand in for a drive of a group: how far up that one
 * is used. In bytes.
 *
 * @example leastInPlaceOf(plan, raid5Group, smallestDrive, rules)
 * // what the array uses of it, with what lies before its data
 */
export const leastInPlaceOf = (plan: Plan, group: Group, old: Drive, rules: BoxRules): Bytes =>
  // Chunks are anywhere on a drive, as far up as it is taken in.
  layoutOf(group.layout).chunked
    ? limitedRoom(roomOf(old, rules), ownValue(group.reach, old.id)).length
    : heightOn(bandsOfGroup(plan, group, rules), old.id, roomOf(old, rules).systemReserve);

/** The most that a drive of a group may have, between reserve and margin: a data drive is no larger than parity. */
function mostInPlaceOf(plan: Plan, group: Group, old: Drive, rules: BoxRules): Bytes {
  const parity = parityOf(bandsOfGroup(plan, group, rules));
  if (parity.length === 0 || parity.includes(old.id)) return Infinity;
  return Math.min(...drivesOf(plan, parity).map((drive) => roomOf(drive, rules).between));
}

/** By how much a drive is too small or too large, as a part of a sentence; null where it is neither. */
function wrongSize(plan: Plan, { group, old, next }: InPlaceOf, rules: BoxRules, family: UnitFamily): string | null {
  const { between } = roomOf(next, rules);
  const least = leastInPlaceOf(plan, group, old, rules);
  if (between < least) return `${TOO_SMALL} ${shortBy(least - between, least, family).by}`;
  const most = mostInPlaceOf(plan, group, old, rules);
  return between > most
    ? `it is larger than the parity drive by ${formatBytes(between - most, family)}, which could not protect all of it`
    : null;
}

/** How a drive is of another make than the one that it would stand in for, where that matters to the box. */
function wrongKind({ old, next }: InPlaceOf, rules: BoxRules): string | null {
  if (old.medium !== next.medium && matters(rules.mixedMedia))
    return next.medium === "ssd"
      ? "it is flash, and the others are hard disks"
      : "it is a hard disk, and the others are flash";
  if (old.logicalSector !== next.logicalSector && matters(rules.mixedSectors))
    return `it has logical sectors of ${next.logicalSector} bytes, and the others of ${old.logicalSector}`;
  return next.bus === "usb" && rules.usbMembers === "block" ? "your box takes no drive on USB into a group" : null;
}

/**
 * Why a drive cannot be put in the place of one of a group, as a part of a sentence: it has failed or is failing
 * itself, is too small, larger than parity, of another kind, or has other sectors where the box minds; null where it
 * can. Whether it is free, and whether there is anything to fill it from, are other questions.
 *
 * @example whyNotInPlaceOf(plan, { group, old: fourTB, next: threeTB }, rules, "TB") // "it is too small by 1.00 TB"
 */
export function whyNotInPlaceOf(plan: Plan, place: InPlaceOf, rules: BoxRules, family: UnitFamily): string | null {
  const { next } = place;
  if (isGone(next)) return `it ${goneWords(next)} itself`;
  if (next.health.state === "failing") return "it is failing itself";
  return wrongSize(plan, place, rules, family) ?? wrongKind(place, rules);
}

/** Which drives of a pool a hot spare would take over for if they failed, and why not for the others. */
export interface SpareService {
  serves: string[];
  not: { drive: string; why: string }[];
}

/** The groups that a hot spare of a pool stands by for: its own, the first, or all, by what the box knows. */
function groupsOfSpare(pool: Pool, spare: string, rules: BoxRules): Group[] {
  const own = pool.groups.filter((group) => group.spares?.includes(spare));
  if (own.length > 0) return own;
  if (!pool.spares.includes(spare)) return [];
  return rules.hotSpares === "per-group" ? pool.groups.slice(0, 1) : pool.groups;
}

/** Why a spare does not take over by itself for any drive of a group; null where it may. */
function whyNoTakeover(group: Group, rules: BoxRules): string | null {
  const layout = layoutOf(group.layout);
  if (rules.hotSpares === "none") return "your box has no hot spares";
  if (layout.takesNoSpare || layout.nominalTolerance(group.options ?? {}) === 0)
    return "this layout has nothing to fill it from";
  return layout.dedicatedParity !== undefined && rules.parityWrites === "by-schedule"
    ? "with parity by schedule a drive is restored by hand"
    : null;
}

/**
 * What a hot spare could do, drive by drive of its pool.
 *
 * @example serviceOf(plan, pool, "d5", rules, "TB")
 * // { serves: ["d1", "d2"], not: [{ drive: "d3", why: "it is too small by 4.00 TB" }] }
 */
export function serviceOf(plan: Plan, pool: Pool, id: string, rules: BoxRules, family: UnitFamily): SpareService {
  const spare = driveOf(plan, id);
  const groups = groupsOfSpare(pool, id, rules);
  const service: SpareService = { serves: [], not: [] };
  for (const group of pool.groups)
    for (const old of drivesOf(plan, group.drives)) {
      const why = !spare
        ? "it is not there"
        : !groups.includes(group)
          ? OF_ANOTHER_GROUP
          : (whyNoTakeover(group, rules) ?? whyNotInPlaceOf(plan, { group, old, next: spare }, rules, family));
      if (why === null) service.serves.push(old.id);
      else service.not.push({ drive: old.id, why });
    }
  return service;
}

/**
 * The spare that takes over by itself for a drive of a group that has failed: the group's own first, then the pool's,
 * the smallest that fits first.
 *
 * @param plan the box with the drive gone
 * @param taken spares that are filled for others already
 * @returns undefined where none does, or nothing is left to fill one from
 * @example spareFor(plan, pool, group, "d2", rules, [])?.id // "d5"
 */
export function spareFor(
  plan: Plan,
  pool: Pool,
  group: Group,
  failed: string,
  rules: BoxRules,
  taken: readonly string[],
): Drive | undefined {
  if (!["degraded", "whole"].includes(fateOfPool(plan, pool, rules, [failed]).kind)) return undefined;
  const fits = (ids: readonly string[]) =>
    drivesOf(plan, ids)
      .filter(({ id }) => !taken.includes(id) && serviceOf(plan, pool, id, rules, "TB").serves.includes(failed))
      .sort((a, b) => a.bytes - b.bytes);
  return fits(group.spares ?? [])[0] ?? fits(pool.spares)[0];
}
