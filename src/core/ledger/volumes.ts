import type { Bytes } from "../bytes/bytes";
import type { Volume } from "../document/plan";
import { fileSystemShare } from "./fileSystem";

/** The share of a file system that is kept free where the owner said nothing. */
export const DEFAULT_HEADROOM = 0.2;

/** Where the bytes of one volume go. They sum to what it got. */
export interface VolumeLedger {
  volume: string;
  /** What it got of the pool; less than it asks for where the pool is too small. */
  bytes: Bytes;
  structures: Bytes;
  /** What the volume has grown by since its file system last did: nothing can be stored there yet. */
  notGrown: Bytes;
  rootReserve: Bytes;
  headroom: Bytes;
  used: Bytes;
  left: Bytes;
}

/**
 * Gives a pool's usable space to its volumes in their order, and says where each one's bytes go. What is used eats
 * into the head-room before anything is missing.
 *
 * @param usable the pool's usable bytes
 * @returns the volumes, and what no volume was given
 * @example volumesOf(1e12, [{ id: "v1", name: "", bytes: 8e11, fileSystem: "none" }]).unassigned // 200 000 000 000
 */
export function volumesOf(usable: Bytes, volumes: readonly Volume[]): { volumes: VolumeLedger[]; unassigned: Bytes } {
  let unassigned = usable;
  const ledgers = volumes.map((volume): VolumeLedger => {
    const bytes = Math.min(volume.bytes, unassigned);
    unassigned -= bytes;
    const present = Math.min(bytes, volume.fileSystemBytes ?? bytes);
    const notGrown = bytes - present;
    const { structures, rootReserve } = fileSystemShare(volume.fileSystem, present);
    const capacity = present - structures - rootReserve;
    const used = Math.min(capacity, volume.usedBytes ?? 0);
    const headroom = Math.min(capacity - used, Math.round(capacity * (volume.headroomShare ?? DEFAULT_HEADROOM)));
    const left = capacity - used - headroom;
    return { volume: volume.id, bytes, structures, notGrown, rootReserve, headroom, used, left };
  });
  return { volumes: ledgers, unassigned };
}
