import type { GroupOptions, KeptArray, LayoutId } from "../document/plan";
import { fillUp, noStripes, readChunks, storedBlocks } from "./chunks";
import { fillsAtOnce, liesOf, parityDrivesOf, slabsOf } from "./lieOn";
import { forkBox, type SimBox, type SimGroup, type SimPool, type Slab } from "./simulatedBox";
import { dataBlocks, readSlab, write, writeRow, type Visit } from "./slabs";

// What is the same for all groups: making one, filling it with data, reading it back, and how much it holds.

/** A group as it is asked for. */
export interface Asked {
  id: string;
  layout: LayoutId;
  options?: GroupOptions | undefined;
  /** Places of its drives. */
  drives: readonly number[];
}

/** Whether a slab survives the loss of a drive. */
export const isRedundant = ({ code }: Pick<Slab, "code">): boolean => code !== "stripe";

/** Writes data of its own into every row of a slab from a height on. */
export function writeSlab(box: SimBox, slab: Slab, from = 0): void {
  for (let row = from; row < slab.rows; row += 1) writeRow(box, slab, row);
}

/** Space is given out by the GiB, however fine the blocks are. */
const CHUNK = 2 ** 30;

/** How many of some blocks chunks can lie on. */
export const inWholeChunks = ({ block }: Pick<SimBox, "block">, blocks: number): number =>
  Math.round((Math.floor((blocks * block) / CHUNK) * CHUNK) / block);

/** A member of a chunk group that nothing lies on yet. */
export const emptyMember = (box: SimBox, drive: number, reach = box.drives[drive]?.blocks ?? 0) => ({
  drive,
  reach: inWholeChunks(box, reach),
  used: new Uint8Array(box.drives[drive]?.blocks ?? 0),
  taken: 0,
  lowest: 0,
  valid: Number.MAX_SAFE_INTEGER,
});

/** A group of a layout without its drives' heights; for `makeGroup` and for plans that begin with one. */
export const bareGroup = ({ id, layout, options = {}, drives }: Asked): SimGroup => ({
  id,
  layout,
  options: { ...options },
  drives: [...drives],
  parityDrives: [],
  reach: [],
  slabs: [],
  chunks: null,
  spares: [],
});

/**
 * Lays a group out on its drives as far up as they are taken in, and writes data all over it; chunks are stored one by
 * one as somebody stores something.
 *
 * @param kept what its arrays keep from when they were made, for a group that a plan begins with
 * @param fresh whether the box makes it now, so that copies and parity may still have to be written
 */
export function layOutOn(box: SimBox, group: SimGroup, fresh: boolean, kept: readonly KeptArray[] = []): void {
  group.parityDrives = parityDrivesOf(box, group);
  const lies = liesOf(group.layout);
  if (lies.in === "chunks") {
    const members = group.drives.map((drive, i) => emptyMember(box, drive, group.reach[i]));
    group.chunks = noStripes(lies.shape(group.options), box.nextData++, members);
    return;
  }
  group.slabs = slabsOf(box, group, 0, kept);
  for (const slab of group.slabs) {
    if (fresh && fillsAtOnce(box.rules) && isRedundant(slab)) slab.agree = 0;
    writeSlab(box, slab);
  }
}

/** Gives up what is on a drive, and makes it ready for a group. */
export function erase(box: SimBox, place: number): void {
  const drive = box.drives[place];
  if (!drive) return;
  box.erased.add(drive.id);
  drive.own = null;
  for (let block = 0; block < drive.blocks; block += 1) write(drive, block, 0);
}

/**
 * Makes a group of drives, which are erased.
 *
 * @example makeGroup(box, { id: "g1", layout: "raid5", drives: [0, 1, 2] }).slabs[0].rows
 */
export function makeGroup(box: SimBox, asked: Asked): SimGroup {
  const group = bareGroup(asked);
  asked.drives.forEach((place) => erase(box, place));
  group.reach = asked.drives.map((place) => box.drives[place]?.blocks ?? 0);
  layOutOn(box, group, true);
  return group;
}

/** Reads all data of a group. */
export function readGroup(box: SimBox, { slabs, chunks }: SimGroup, visit: Visit): void {
  for (const slab of slabs) readSlab(box, slab, visit);
  if (chunks) readChunks(box, chunks, visit);
}

/**
 * How many blocks of data a group holds when it is full and all its drives are there; of chunks that is found by
 * filling another box like it.
 */
export function capacityOf(box: SimBox, group: SimGroup): number {
  const blocks = group.slabs.reduce((sum, slab) => sum + dataBlocks(slab), 0);
  if (!group.chunks) return blocks;
  const other = forkBox(box);
  for (const place of group.drives) if (other.drives[place]) other.drives[place].state = "works";
  const same = other.pools.flatMap(({ groups }) => groups).find(({ id }) => id === group.id)?.chunks;
  if (!same) return blocks;
  fillUp(other, same);
  return blocks + storedBlocks(same);
}

/**
 * How many blocks a pool holds, less what the box keeps of it for itself.
 *
 * @example capacityOfPool(box, pool) * box.block // in bytes, to the scale's error
 */
export function capacityOfPool(box: SimBox, pool: SimPool): number {
  const { poolReserveShare, poolReserveMaxBytes } = box.rules;
  const blocks = pool.groups.reduce((sum, group) => sum + capacityOf(box, group), 0);
  const kept = Math.min(blocks * poolReserveShare, (poolReserveMaxBytes ?? Infinity) / box.block);
  return blocks - kept;
}

/** How many blocks of a drive a slab or the chunks of a group lie on. */
export function cellsOn(group: SimGroup, place: number): number {
  const rows = group.slabs.reduce(
    (sum, slab) => sum + slab.members.filter(({ drive }) => drive === place).length * slab.rows,
    0,
  );
  return rows + (group.chunks?.members.find(({ drive }) => drive === place)?.taken ?? 0);
}
