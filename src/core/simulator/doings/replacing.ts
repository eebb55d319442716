import { claim, newSpaceSeconds, recut } from "../claims";
import { type Doing, freeBay, gaining, heightOn, isHighEnough, phaseOf, putInPlaceOf, takeIn, waiting } from "../doing";
import { erase, isRedundant, writeSlab } from "../groups";
import { AT_ONCE, cellsOf, fillSeconds, fillShare, partUsed, together } from "../pace";
import { forkBox, groupNamed, groupWith, placeOf, type SimBox, type SimGroup, type SimPool } from "../simulatedBox";
import { makeAgree } from "../slabs";
import type { Phase } from "../work";
import { rateTo } from "./elsewhere";

// A drive in the place of another: copied, filled from the others, or restored.

/** Why a drive cannot stand in the place of another of a group; null where it can. */
export function tooSmall(box: SimBox, group: SimGroup, old: number, next: number): string | null {
  return isHighEnough(box, next, heightOn(group, old)) ? null : "The drive is too small.";
}

/** Whether a box takes a drive in the place of another of a group by itself: large enough, and of the same kind. */
export function fitsIn(box: SimBox, group: SimGroup, old: number, next: number): boolean {
  const [was, is] = [box.drives[old]?.is, box.drives[next]?.is];
  if (!was || !is || tooSmall(box, group, old, next) !== null) return false;
  const minds = (mixing: string) => mixing === "warn" || mixing === "block";
  const { mixedMedia, mixedSectors, usbMembers } = box.rules;
  if (is.health.state === "failing" || (is.bus === "usb" && usbMembers === "block")) return false;
  return (
    !(minds(mixedMedia) && was.medium !== is.medium) && !(minds(mixedSectors) && was.logicalSector !== is.logicalSector)
  );
}

/** The time in which a group writes what it gains, in a box that takes new space into use by itself; after all else. */
function gained(box: SimBox, group: SimGroup, old: number, next: number): Phase[] {
  const seconds = secondsGained(box, group, old, next);
  return seconds > 0 ? [gaining(group.id, seconds)] : [];
}

function secondsGained(box: SimBox, group: SimGroup, old: number, next: number): number {
  if (box.rules.claiming !== "by-itself") return 0;
  const other = forkBox(box);
  const owner = groupNamed(other, group.id);
  if (!owner) return 0;
  if (!owner.group.drives.includes(next)) putInPlaceOf(other, owner.group, old, next, Number.MAX_SAFE_INTEGER);
  claim(other, owner.pool, owner.group);
  const stood = new Map(group.drives.includes(next) ? [] : [[next, old]]);
  return newSpaceSeconds(box, group, owner.group, stood) ?? 0;
}

/** What a drive that has gone into a group's place still needs: to be filled from the others. */
function filling(box: SimBox, pool: SimPool, group: SimGroup, place: number): Phase[] {
  const op = { kind: "fill", group: group.id, place } as const;
  const seconds = Math.max(fillSeconds(box, pool, group, place), 1e-9);
  const isEmpty = cellsOf(box, pool, group).get(place) === 0;
  return isEmpty ? [phaseOf(box, op, AT_ONCE)] : [phaseOf(box, op, seconds), ...gained(box, group, place, place)];
}

/** Takes a drive out of its bay. */
function out(box: SimBox, place: number): void {
  const drive = box.drives[place];
  if (drive) drive.bay = null;
}

const copied: Doing<"replace-drive">["begin"] = (box, step) => {
  const [old, next] = [placeOf(box, step.drive), placeOf(box, step.by)];
  const owner = groupWith(box, old);
  if (!owner || next < 0) return "The drive is in no group.";
  const { pool, group } = owner;
  const small = tooSmall(box, group, old, next);
  if (small) return small;
  takeIn(box, next);
  const blocks = (cellsOf(box, pool, group).get(old) ?? 0) * (group.chunks ? 1 : partUsed(box, pool));
  const copy = together(box, [old, next], blocks, fillShare(group.slabs), false);
  const op = { kind: "copy", group: group.id, from: old, to: next } as const;
  return [phaseOf(box, op, copy), ...gained(box, group, old, next)];
};

/** Whether a drive is in a bay, from which it is pulled then. */
const isInBay = (box: SimBox, id: string): boolean => (box.drives[placeOf(box, id)]?.bay ?? null) !== null;

export const replaceDrive: Doing<"replace-drive"> = {
  joins: ({ by }) => [by],
  pullsLast: (box, step) => step.how === "attached" && isInBay(box, step.drive),
  begin: (box, step) => {
    if (step.how === "attached") return copied(box, step);
    const [old, next] = [placeOf(box, step.drive), placeOf(box, step.by)];
    const owner = groupWith(box, old);
    if (!owner || next < 0) return "The drive is in no group.";
    const small = tooSmall(box, owner.group, old, next);
    if (small) return small;
    const [was, is] = [box.drives[old], box.drives[next]];
    if (is) is.bay ??= was?.bay ?? null;
    out(box, old);
    erase(box, next);
    putInPlaceOf(box, owner.group, old, next, 0);
    return filling(box, owner.pool, owner.group, next);
  },
  end: (box, step) => {
    if (step.how !== "attached") return;
    const [old, next] = [placeOf(box, step.drive), placeOf(box, step.by)];
    const owner = groupWith(box, old);
    if (owner) putInPlaceOf(box, owner.group, old, next, Number.MAX_SAFE_INTEGER);
    out(box, old);
  },
};

/** Puts a drive in the place of one that is gone, into its bay where that is where it goes. */
function seatInPlaceOf(box: SimBox, old: number, next: number): void {
  const [was, is] = [box.drives[old], box.drives[next]];
  if (!was || !is) return;
  const last = was.bay ?? was.is.lastBay ?? null;
  const open = last !== null && !box.drives.some((drive) => drive.bay === last && drive !== was);
  const bay = is.bay ?? (open ? last : freeBay(box));
  if (was !== is && bay !== null && was.bay === bay) was.bay = null;
  is.bay = bay;
}

/**
 * Of a drive with files of its own what is stored comes back also to a smaller one, which ends lower then. As long as
 * another of the group is gone nothing is laid out again: what is left of the parity is all there is of it.
 */
function lower(box: SimBox, group: SimGroup): void {
  if (!group.drives.every((place) => box.drives[place]?.state === "works")) return;
  const blocks = (place: number) => box.drives[place]?.blocks ?? 0;
  if (group.drives.every((place) => isHighEnough(box, place, heightOn(group, place)))) return;
  if (group.parityDrives.length > 0) {
    recut(box, group);
    for (const slab of group.slabs) for (let row = 0; row < slab.rows; row += 1) makeAgree(box, slab, row);
    return;
  }
  for (const slab of group.slabs) slab.rows = Math.min(slab.rows, blocks(slab.members[0]?.drive ?? -1));
}

function lackOf(box: SimBox, step: { group: string; drive: string; by: string }, needs?: number) {
  const owner = groupNamed(box, step.group);
  const [old, next] = [placeOf(box, step.drive), placeOf(box, step.by)];
  if (!owner || next < 0 || !owner.group.drives.includes(old)) return "The drive is in no such group.";
  const small = needs !== undefined && needs <= (box.drives[next]?.blocks ?? 0);
  return (small ? null : tooSmall(box, owner.group, old, next)) ?? { ...owner, old, next };
}

export const rebuild: Doing<"rebuild"> = {
  joins: ({ drive, by }) => (by === drive ? [] : [by]),
  bringsBack: true,
  begin: (box, step) => {
    const lack = lackOf(box, step);
    if (typeof lack === "string") return lack;
    const { pool, group, old, next } = lack;
    pool.spares = pool.spares.filter((place) => place !== next);
    group.spares = group.spares.filter((place) => place !== next);
    seatInPlaceOf(box, old, next);
    const drive = box.drives[next];
    if (drive) drive.state = "works";
    erase(box, next);
    putInPlaceOf(box, group, old, next, 0);
    return filling(box, pool, group, next);
  },
};

/** How many blocks were stored on a drive with files of its own. */
function storedOn(box: SimBox, id: string, place: number): number {
  const owner = groupNamed(box, id);
  if (!owner) return 0;
  return (cellsOf(box, owner.pool, owner.group).get(place) ?? 0) * usedOf(box, owner.pool, owner.group);
}

/** The rate at which the newest backup of a pool comes back, in bytes per second. */
const wayBack = (box: SimBox, pool: string): number =>
  box.backups.filter((each) => each.pool === pool).at(-1)?.rate ?? rateTo(box, pool);

export const restoreDrive: Doing<"restore-drive"> = {
  joins: ({ drive, by }) => (by === drive ? [] : [by]),
  bringsBack: true,
  begin: (box, step) => {
    const blocks = storedOn(box, step.group, placeOf(box, step.drive));
    const lack = lackOf(box, step, blocks);
    if (typeof lack === "string") return lack;
    const { pool, group, old, next } = lack;
    const works = (place: number) => box.drives[place]?.state === "works";
    const places = [...group.drives.filter(works), next];
    const straight = (count: number) => together(box, places, count, fillShare(group.slabs), true);
    seatInPlaceOf(box, old, next);
    erase(box, next);
    putInPlaceOf(box, group, old, next, 0);
    if (step.from === undefined)
      return [phaseOf(box, { kind: "fill", group: group.id, place: next }, straight(blocks))];
    const restored = (blocks * box.block) / wayBack(box, pool.id);
    const longest = Math.max(0, ...cellsOf(box, pool, group).values());
    const anew = group.parityDrives.length > 0 && group.drives.every(works) ? straight(longest) : 0;
    return [waiting(restored + anew)];
  },
  end: (box, step) => {
    const owner = groupNamed(box, step.group);
    if (!owner) return;
    const place = placeOf(box, step.by);
    if (step.from !== undefined) fromBackup(box, owner.group, place);
    lower(box, owner.group);
  },
};

/** What was on a drive as it is in the backup, and the parity of it worked out anew. */
function fromBackup(box: SimBox, group: SimGroup, place: number): void {
  for (const slab of group.slabs)
    for (const member of slab.members) {
      if (member.drive !== place) continue;
      member.valid = slab.rows;
      writeSlab(box, slab);
    }
}

/** The share of a pool that is used, of drives with files of their own. */
const usedOf = (box: SimBox, pool: SimPool, group: SimGroup): number =>
  group.slabs.some(isRedundant) || pool.volumes.length > 0
    ? partUsed({ ...box, rules: { ...box.rules, rebuilding: "used-only" } }, pool)
    : 1;

/** Puts a parity drive into a bay of its own where the old one stays meanwhile, else into that of the old one. */
function seatParity(box: SimBox, old: number, next: number): void {
  const [was, is] = [box.drives[old], box.drives[next]];
  if (!was || !is) return;
  if (box.rules.replacing === "old-attached") is.bay ??= freeBay(box) ?? was.bay;
  else {
    is.bay = was.bay;
    was.bay = null;
  }
}

export const changeParityDrive: Doing<"change-parity-drive"> = {
  joins: ({ by }) => [by],
  pullsLast: (box, step) => isInBay(box, step.drive),
  begin: (box, step) => {
    const owner = groupNamed(box, step.group);
    const [old, next] = [placeOf(box, step.drive), placeOf(box, step.by)];
    if (!owner?.group.parityDrives.includes(old) || next < 0) return "The drive is no parity drive.";
    const { group, pool } = owner;
    // It has to be able to take the parity of all that its data drives can hold, whatever is in use of them.
    const data = group.drives.filter((place) => !group.parityDrives.includes(place));
    if (data.some((place) => !isHighEnough(box, next, box.drives[place]?.blocks ?? 0)))
      return "The drive is smaller than a data drive.";
    const blocks = cellsOf(box, pool, group).get(old) ?? 0;
    const seconds = together(box, [...group.drives, next], blocks, fillShare(group.slabs), true);
    seatParity(box, old, next);
    erase(box, next);
    putInPlaceOf(box, group, old, next, 0);
    const at = group.drives.indexOf(next);
    group.reach[at] = box.drives[next]?.blocks ?? 0;
    return [phaseOf(box, { kind: "fill", group: group.id, place: next }, seconds)];
  },
  end: (box, step) => {
    out(box, placeOf(box, step.drive));
    const owner = groupNamed(box, step.group);
    if (owner) recut(box, owner.group);
  },
};

export const setSpare: Doing<"set-spare"> = {
  joins: ({ drive }) => [drive],
  begin: (box, step) => {
    const pool = box.pools.find(({ id }) => id === step.pool);
    const place = placeOf(box, step.drive);
    if (!pool || place < 0) return "The pool is not there.";
    takeIn(box, place);
    pool.spares.push(place);
    return [waiting(AT_ONCE)];
  },
};

export const removeSpare: Doing<"remove-spare"> = {
  begin: (box, step) => {
    const place = placeOf(box, step.drive);
    for (const pool of box.pools) {
      pool.spares = pool.spares.filter((each) => each !== place);
      for (const group of pool.groups) group.spares = group.spares.filter((each) => each !== place);
    }
    return [waiting(AT_ONCE)];
  },
};
