import type { Bytes } from "../bytes/bytes";
import type { Backup, BoxRules, Drive, GroupOptions, LayoutId } from "../document/plan";

// What a simulated box is made of. All of it is data, so that a box can be forked and sent to a worker; functions
// change it in place, since a run touches every block.

/** A drive, as so many blocks of one coded byte each. */
export interface SimDrive {
  id: string;
  bytes: Bytes;
  /** What it is, as the plan says. */
  is: Drive;
  /** How many blocks a pool can use of it, above what the box keeps for itself. */
  blocks: number;
  cells: Uint8Array;
  /** Blocks that cannot be read; found only when they are read. */
  unreadable: Set<number> | null;
  /** Whether it answers: it works, has failed, or is not there. */
  state: "works" | "failed" | "missing";
  /** The bay that it is in, from 1; null on the shelf. */
  bay: number | null;
  /** How many times slower than it should be. */
  slow: number;
  /** Which data of its own it holds while it is in no pool; null where it is empty. */
  own: number | null;
}

/** What a slab's rows hold: the same block on every member; blocks side by side; with parity; or two of each. */
export type Code = "copies" | "stripe" | "parity" | "ring";

/** A member of a slab. */
export interface Member {
  /** Its place among the drives of the box. */
  drive: number;
  /** The block of the drive at which the slab begins. */
  from: number;
  /** How many rows of it hold what they should, from the bottom; the rest has still to be filled. */
  valid: number;
  /** Independent drives: which data of its own it holds, addressed by the blocks of the drive; null for parity. */
  data: number | null;
}

/** Rows of blocks over some drives that are coded alike. */
export interface Slab {
  code: Code;
  /** Blocks of parity in a row. */
  parity: number;
  rows: number;
  /** How far up of each drive it ends, in bytes of what a pool can use: decides which drives cover it whole. */
  top: number;
  members: Member[];
  /** Which data it holds, addressed from 0; of independent drives the members say. */
  data: number;
  /** Whether each drive has a file system of its own, and where the parity is: on members of its own, not in turns. */
  independent: boolean;
  /** How many rows have parity or copies that agree with the data: a first fill writes them after the data. */
  agree: number;
  /**
   * Under way from one shape to another: this many rows are in the new one, from the bottom, or from the top where the
   * new one holds less in a row; the rest are still in the old.
   */
  rewrite: { old: Slab; front: number; down: boolean } | null;
}

/** A drive that chunks lie on. */
export interface ChunkMember {
  /** Its place among the drives of the box; −1 when it has left. */
  drive: number;
  /** How many of its blocks may be used. */
  reach: number;
  /** Which of them are in use, and how many. */
  used: Uint8Array;
  taken: number;
  /** Below this block all are in use. */
  lowest: number;
  /** Below this block it holds what it should; the rest has still to be filled. */
  valid: number;
}

/** Stripes of chunks, a chunk being one block: each lies on drives of its own. */
export interface Chunks {
  /** Blocks of data in a stripe, copies of each, blocks of parity. */
  k: number;
  copies: number;
  parity: number;
  data: number;
  /** How many stripes there are. */
  count: number;
  /** For each stripe and each of its blocks: which member, and which block of it. */
  on: Int16Array;
  at: Int32Array;
  members: ChunkMember[];
  /** Under way from other stripes on the same members: data below `front` is in these, the rest in those. */
  rewrite: { old: Chunks; front: number } | null;
}

/** A group of drives under one layout. */
export interface SimGroup {
  id: string;
  layout: LayoutId;
  options: GroupOptions;
  /** Places of its drives among those of the box, in the order in which the group names them. */
  drives: number[];
  /** Places of those that hold nothing but parity. */
  parityDrives: number[];
  /** How far up each drive is taken in, in blocks, in the order of `drives`. */
  reach: number[];
  slabs: Slab[];
  chunks: Chunks | null;
  /** Places of hot spares that stand by for this group only. */
  spares: number[];
}

/** A piece of a volume: so many blocks of some data. */
export interface Extent {
  data: number;
  from: number;
  count: number;
}

/** A volume, as bytes that are shown and as pieces of the pool. */
export interface SimVolume {
  id: string;
  bytes: Bytes;
  /** How far its file system reaches. */
  files: Bytes;
  /** What is stored on it. */
  stored: Bytes;
  extents: Extent[];
}

/** A pool. */
export interface SimPool {
  id: string;
  groups: SimGroup[];
  spares: number[];
  volumes: SimVolume[];
  /** Whether scheduled updates of the parity are stopped. */
  paused: boolean;
}

/** A copy of a pool's data somewhere else. */
export interface SimBackup {
  pool: string;
  /** Where it is: one without versions takes the place of the one before it. */
  to: string;
  /** The hour as of which it is: that at which it was begun. */
  hours: number;
  place: "here" | "elsewhere";
  keepsVersions: boolean;
  /** Bytes per second of the way there and back. */
  rate: number;
  /** Volumes of which something could not be read any more when it was made, by their ids. */
  lacks?: readonly string[];
}

/** A place for backups that the plan knows of. */
export interface KnownBackup extends Pick<Backup, "id" | "kind" | "place" | "keepsVersions"> {
  /** Ids of the pools whose data it is for. */
  pools: readonly string[];
}

/** A box with its drives and all that is on them. */
export interface SimBox {
  /** Hours since the beginning. */
  hours: number;
  known: readonly KnownBackup[];
  rules: BoxRules;
  bays: number;
  /** Whether a battery supply keeps it running while the power is cut. */
  ups: boolean;
  /** Bytes of a block. */
  block: Bytes;
  drives: SimDrive[];
  pools: SimPool[];
  backups: SimBackup[];
  /** The number that the next data gets. */
  nextData: number;
  /** Drives whose content was given up since this list was last emptied. */
  erased: Set<string>;
}

const copyOfSlab = (slab: Slab): Slab => ({
  ...slab,
  members: slab.members.map((member) => ({ ...member })),
  rewrite: slab.rewrite && { ...slab.rewrite, old: copyOfSlab(slab.rewrite.old) },
});

function copyOfChunks(chunks: Chunks, members = chunks.members.map((each) => ({ ...each, used: each.used.slice() }))) {
  const copy: Chunks = { ...chunks, on: chunks.on.slice(), at: chunks.at.slice(), members };
  // Both shapes stand on the same members.
  if (chunks.rewrite) copy.rewrite = { ...chunks.rewrite, old: copyOfChunks(chunks.rewrite.old, members) };
  return copy;
}

const copyOfPool = (pool: SimPool): SimPool => ({
  ...pool,
  spares: [...pool.spares],
  groups: pool.groups.map((group) => ({
    ...group,
    drives: [...group.drives],
    parityDrives: [...group.parityDrives],
    reach: [...group.reach],
    spares: [...group.spares],
    slabs: group.slabs.map(copyOfSlab),
    chunks: group.chunks && copyOfChunks(group.chunks),
  })),
  volumes: pool.volumes.map((volume) => ({ ...volume, extents: volume.extents.map((extent) => ({ ...extent })) })),
});

/**
 * Another box that is as this one is, and goes its own way from here.
 *
 * @example const other = forkBox(box); failDrive(other, "d1"); // `box` still has it
 */
export const forkBox = (box: SimBox): SimBox => ({
  ...box,
  drives: box.drives.map((drive) => ({
    ...drive,
    cells: drive.cells.slice(),
    unreadable: drive.unreadable && new Set(drive.unreadable),
  })),
  pools: box.pools.map(copyOfPool),
  backups: [...box.backups],
  erased: new Set(box.erased),
});

/** The group that has a drive among its own, with its pool; null where none has. */
export function groupWith(box: SimBox, drive: number): { pool: SimPool; group: SimGroup } | null {
  for (const pool of box.pools)
    for (const group of pool.groups) if (group.drives.includes(drive)) return { pool, group };
  return null;
}

/** A group by its id, with its pool; null where it is not there. */
export function groupNamed(box: SimBox, id: string): { pool: SimPool; group: SimGroup } | null {
  for (const pool of box.pools) for (const group of pool.groups) if (group.id === id) return { pool, group };
  return null;
}

/** The place of a drive among those of the box; −1 where it is not there. */
export const placeOf = (box: SimBox, id: string): number => box.drives.findIndex((drive) => drive.id === id);
