import { REBUILD_SHARE, sequentialRate, STRAIGHT_SHARE, VERIFY_SHARE } from "../drives/rates";
import { cellsOn, isRedundant } from "./groups";
import {
  type Chunks,
  forkBox,
  type SimBox,
  type SimDrive,
  type SimGroup,
  type SimPool,
  type Slab,
} from "./simulatedBox";
import type { Backup } from "../document/plan";
import { fillUp } from "./chunks";
import { capacityOfPool } from "./groups";

// How long work takes: the blocks that a drive has to go through, at the rate that such work reaches on it.

/** How what the owner favours moves the rate of such work. */
const FAVOURS = { rebuild: 1.4, balanced: 1, users: 0.4 } as const;

/** A few minutes, in seconds: what is told to the box and needs no work on blocks. */
export const AT_ONCE = 360;

/** The rate of the way to a kind of backup and back, in bytes per second. */
export const WAYS: Record<Backup["kind"], number> = { box: 117e6, "usb-drive": 140e6, service: 50e6 / 8 };

const rateOf = ({ is, slow }: SimDrive): number => sequentialRate(is) / slow;

/** The rate of work in bytes per second: a share of the drive's, moved by what the owner favours. */
function workRate({ rules }: SimBox, rate: number, share: number, parity: boolean): number {
  const worked = Math.min(rate, rate * share * FAVOURS[rules.preference]);
  return parity && rules.parityRateLimit !== null ? Math.min(worked, rules.parityRateLimit) : worked;
}

/**
 * The seconds in which drives go through their blocks side by side, each at its own rate: bytes ÷ rate, the longest
 * decides.
 *
 * @param blocks how many of each drive, by its place
 * @param share of its sequential rate that such work reaches
 * @example sideBySide(box, new Map([[0, 256]]), 0.8, false) // 256 blocks of a drive, read and compared
 */
export function sideBySide(box: SimBox, blocks: ReadonlyMap<number, number>, share: number, parity: boolean): number {
  let longest = 0;
  for (const [place, count] of blocks) {
    const drive = box.drives[place];
    if (drive) longest = Math.max(longest, (count * box.block) / workRate(box, rateOf(drive), share, parity));
  }
  return longest;
}

/**
 * The seconds in which so many blocks are gone through by some drives together: the slowest of them sets the rate.
 *
 * @param places of the drives; those that are gone take no part
 * @returns 0 where there is nothing to go through
 * @example together(box, [0, 1, 2], 256, 0.6, true)
 */
export function together(
  box: SimBox,
  places: readonly number[],
  blocks: number,
  share: number,
  parity: boolean,
): number {
  const there = places.flatMap((place) => {
    const drive = box.drives[place];
    return drive && drive.state === "works" ? [rateOf(drive)] : [];
  });
  if (there.length === 0 || blocks === 0) return 0;
  return (blocks * box.block) / workRate(box, Math.min(...there), share, parity);
}

/** Parity drives are read and written straight through. */
const isStraight = (slab: Slab): boolean => slab.independent && slab.code === "parity";

/** The share of a drive's rate at which slabs are filled. */
export const fillShare = (slabs: readonly Slab[]): number =>
  slabs.length > 0 && slabs.every(isStraight) ? STRAIGHT_SHARE : REBUILD_SHARE;

/**
 * Seconds of a pass over all members of some slabs, each at its own rate; what lies on one drive adds up.
 *
 * @param part of each slab that is gone through, 0 to 1
 * @example passOver(box, group.slabs, checkShare)
 */
export function passOver(box: SimBox, slabs: readonly Slab[], shareOf: (slab: Slab) => number, part = 1): number {
  const seconds = new Map<number, number>();
  for (const slab of slabs)
    for (const { drive } of slab.members) {
      const own = sideBySide(box, new Map([[drive, slab.rows * part]]), shareOf(slab), slab.parity > 0);
      seconds.set(drive, (seconds.get(drive) ?? 0) + own);
    }
  return Math.max(0, ...seconds.values());
}

/** The share at which a slab is filled for the first time, and read and compared. */
export const firstFillShare = (slab: Slab): number => (isStraight(slab) ? STRAIGHT_SHARE : REBUILD_SHARE);
export const checkShare = (slab: Slab): number => (isStraight(slab) ? STRAIGHT_SHARE : VERIFY_SHARE);

/** Whether parity is worked out for a group. */
export const hasParity = (group: SimGroup): boolean =>
  group.slabs.some(({ parity }) => parity > 0) || (group.chunks?.parity ?? 0) > 0;

/** The share of what a pool's groups hold that is stored; all of it where no volume says. */
export function usedShare(box: SimBox, pool: SimPool): number {
  if (pool.volumes.length === 0) return 1;
  const { poolReserveShare } = box.rules;
  const blocks = capacityOfPool({ ...box, rules: { ...box.rules, poolReserveShare: poolReserveShare * 0 } }, pool);
  const stored = pool.volumes.reduce((sum, { stored: bytes }) => sum + bytes, 0) / box.block;
  return Math.min(1, stored / Math.max(1, blocks));
}

/** The share of a group's blocks that work goes through in a box that may look only at what is used. */
export const partUsed = (box: SimBox, pool: SimPool): number =>
  box.rules.rebuilding === "used-only" ? usedShare(box, pool) : 1;

/**
 * Seconds to fill a drive of a group from the others: what is worked out under parity waits for the processor.
 *
 * @param place of the drive that is filled
 */
export function fillSeconds(box: SimBox, pool: SimPool, group: SimGroup, place: number): number {
  const part = partUsed(box, pool);
  if (group.chunks) {
    const others = group.chunks.members.map(({ drive }) => drive);
    return together(box, others, chunksOn(box, pool, group, place), REBUILD_SHARE, hasParity(group));
  }
  const own = group.slabs.filter((slab) => isRedundant(slab) && slab.members.some(({ drive }) => drive === place));
  const drives = own.flatMap(({ members }) => members.map(({ drive }) => drive));
  const share = fillShare(own);
  const rows = (parity: boolean) =>
    own.filter((slab) => slab.parity > 0 === parity).reduce((sum, slab) => sum + slab.rows, 0) * part;
  return together(box, drives, rows(true), share, true) + together(box, drives, rows(false), share, false);
}

/** How many blocks of a drive hold chunks that work goes through; all that it could hold where nobody says. */
export function chunksOn(box: SimBox, pool: SimPool, group: SimGroup, place: number): number {
  const { chunks } = group;
  if (!chunks) return 0;
  const taken = (of: Chunks) => of.members.find(({ drive }) => drive === place)?.taken ?? 0;
  if (pool.volumes.length > 0) return taken(chunks);
  const other = forkBox(box);
  const full = other.pools.flatMap(({ groups }) => groups).find(({ id }) => id === group.id)?.chunks ?? chunks;
  for (const { drive } of full.members) if (other.drives[drive]) other.drives[drive].state = "works";
  fillUp(other, full);
  return taken(full);
}

/** The blocks of each drive of a group that it lies on. */
export const cellsOf = (box: SimBox, pool: SimPool, group: SimGroup): Map<number, number> =>
  new Map(
    group.drives.map((place) => [place, group.chunks ? chunksOn(box, pool, group, place) : cellsOn(group, place)]),
  );
