import type { Band } from "../bands/band";
import type { Bytes } from "../bytes/bytes";
import type { ArrayFormat, GroupOptions, KeptArray, LayoutId } from "../document/plan";
import type { Room } from "../drives/room";
import type { LevelPath } from "./levelPath";

/** What a layout has to know of the box besides the drives. */
export interface LayoutSetting {
  arrayFormat: ArrayFormat;
  options?: GroupOptions;
  /** What its arrays keep from when they were made, from the bottom; none for a group that is made now. */
  kept?: readonly KeptArray[];
}

/** What one stripe holds, in blocks, each on a drive of its own. */
export interface StripeShape {
  /** Blocks of data; "rest" where it is whatever copies and parity leave of the drives. */
  data: number | "rest";
  /** How often each block of data is there; "all" where every drive has one. */
  copies: number | "all";
  /** Blocks of parity. */
  parity: number;
}

/**
 * What a further drive means to a group: all stripes are rewritten over it; it is filled with a copy; it joins without
 * anything being rewritten, and a pool has only one such group; or no drive can join.
 */
export type Widening = "rewrites" | "copies" | "joins" | "never";

/**
 * A layout: a function from the rooms of drives to bands, and what it is. Everything that is shown of a group is
 * derived from its bands; everything else that anybody asks of a layout stands here, so that nobody asks for its id. A
 * family of layouts stands in one file of this folder and is listed in `registry.ts`.
 */
export interface Layout {
  id: LayoutId;
  /** The plain name, for instance "single parity". */
  name: string;
  /** The trade's short name, for instance "RAID 5". */
  shortName: string;
  /** One sentence: how it lies on the drives. */
  summary: string;
  /** The fewest drives that its arithmetic allows. */
  minimumDrives: number;
  /** The fewest that boxes usually take; the rules of a box may say otherwise, down to `minimumDrives`. */
  usualDrives: number;
  /** The number in multiples of which most boxes give it drives; 1 where nothing is said. */
  multiple?: number;
  /** What one stripe holds, with these options. */
  stripe: (options: GroupOptions) => StripeShape;
  /** How many failed drives are survived, whichever, with these options, in a group of as few drives as it takes. */
  nominalTolerance: (options: GroupOptions) => number;
  /** What the kernel's RAID driver calls it; left out where it makes no such array. */
  kernelLevel?: string;
  widening: Widening;
  /** What it can become with the data kept; paths that no box makes are not listed. */
  becomes: readonly LevelPath[];
  /** How many drives more it usually takes to bring a group to this level. */
  levelTakes?: number;
  /**
   * Whether every drive counts as large as the smallest: the bands depend on the count, the smallest and the first
   * named.
   */
  countsSmallest?: true;
  /** Whether a pool of several groups of it makes sense: it ties a few drives together, not all that there are. */
  splits?: true;
  /**
   * What the trade calls a pool of several such groups, where it has a name for it, and for groups of how many drives.
   */
  several?: { name: string; of?: number };
  /** Whether a landing place is made of it in any box that has one, whatever layouts the box offers for storage. */
  landing?: true;
  /**
   * Whether its bands are arrays, which keep the offset, the chunk and the used part with which they were made through
   * all changes but a claim.
   */
  keepsArrays?: true;
  /** Whether it gives out space in chunks, which stay where they are until they are balanced. */
  chunked?: true;
  /**
   * Whether each drive has a file system of its own, so that beyond the tolerance only what was on the failed ones
   * goes.
   */
  independent?: true;
  /** How many of its drives hold nothing but parity, and must be no smaller than the others. */
  dedicatedParity?: 1 | 2;
  /** Whether several of its drives can be rebuilt in one go: what is read for one gives the others too. */
  rebuildsTogether?: true;
  /** Whether its bands end at the sizes of the drives, and stay where they are when one joins. */
  cutsAtSizes?: true;
  /** Whether a drive of any size may join, whatever the box's rule: nothing ties it to the others. */
  joinsAnySize?: true;
  /** Whether unequal drives are striped in zones on a Linux host, which then neither widens nor changes it. */
  zonedWhenUnequal?: true;
  /** Whether its parts lie end to end on one drive, so that none can grow where it is: a claim brings nothing. */
  liesEndToEnd?: true;
  /** Whether it can use no hot spare, and no drive of it can be copied to another while it runs. */
  takesNoSpare?: true;
  /**
   * Whether one of so many drives can be taken out for good, what it holds going to the others; never where nothing is
   * said.
   */
  canLoseOne?: (drives: number) => boolean;
  /** What can be chosen about a group of it, beyond the drives. */
  chooses?: "stripe-width" | "pairs" | "parity-drives";
  /** In which it gives out space, in bytes, where that is more than 1 MiB. */
  allocationUnit?: Bytes;
  /** The fewest drives with these options, where they matter. */
  drivesFor?(options: GroupOptions): number;
  /**
   * Lays the layout out on drives.
   *
   * @param rooms at least `minimumDrives`, in the order in which the group names them
   * @returns the bands from the bottom up; none where the drives have no space in common
   * @throws RangeError for fewer rooms than `minimumDrives`; `problemsOfLayout` tells beforehand
   */
  layOut(rooms: readonly Room[], setting: LayoutSetting): Band[];
}

/** Throws for fewer rooms than the layout needs, which is the caller's mistake. */
export function requireRooms(layout: Pick<Layout, "id" | "minimumDrives">, rooms: readonly Room[]): void {
  if (rooms.length < layout.minimumDrives) {
    throw new RangeError(`${layout.id} needs ${layout.minimumDrives} drives, not ${rooms.length}.`);
  }
}
