import type { Bytes } from "../bytes/bytes";
import type { Band } from "../bands/band";
import type { Room } from "../drives/room";
import type { LayoutId, GroupOptions, ArrayFormat } from "../document/plan";

/** What a layout has to know of the box besides the drives. */
export interface LayoutSetting {
  arrayFormat: ArrayFormat;
  options?: GroupOptions;
}

/**
 * A layout: a function from the rooms of drives to bands, and what it takes. Everything that is shown of a group is
 * derived from its bands. A family of layouts stands in one file of this folder and is listed in `registry.ts`.
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
  /** Whether it takes only an even number of drives on most boxes. */
  even?: true;
  /** Whether every drive counts as large as the smallest: the bands depend on the count, the smallest and the first named. */
  countsSmallest?: true;
  /** Whether a pool of several groups of it makes sense: it ties a few drives together, not all that there are. */
  splits?: true;
  /** In which it gives out space, in bytes, where that is more than 1 MiB. */
  allocationUnit?: Bytes;
  /** The fewest drives with these options, where they matter. */
  drivesFor?(options: GroupOptions): number;
  /**
   * Lays the layout out on drives.
   *
   * @param rooms at least `minimumDrives`, in the order in which the group names them
   * @returns the bands from the bottom up; none where the drives have no room in common
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
