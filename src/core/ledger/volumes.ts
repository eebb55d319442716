import type { Bytes } from "../bytes/bytes";
import type { Volume } from "../document/plan";
import { fileSystemShare, type FileSystemShare } from "./fileSystem";

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
  /** Kept for snapshots or for the system. */
  reserved: Bytes;
  rootReserve: Bytes;
  headroom: Bytes;
  used: Bytes;
  left: Bytes;
}

/**
 * What a volume keeps for snapshots or the system, rounded up to the byte, what its file system takes of the rest, and
 * what folders see.
 *
 * @param volume as far as its file system reaches
 * @example volumeShares({ …volume, bytes: 1e12, fileSystem: "none", reservedShare: 0.1 }).capacity // 900 000 000 000
 */
export function volumeShares(volume: Volume): FileSystemShare & { present: Bytes; reserved: Bytes; capacity: Bytes } {
  const present = Math.min(volume.bytes, volume.fileSystemBytes ?? volume.bytes);
  const reserved = Math.min(present, Math.ceil(present * (volume.reservedShare ?? 0)));
  const share = fileSystemShare(volume.fileSystem, present - reserved);
  const capacity = present - reserved - share.structures - share.rootReserve;
  return { ...share, present, reserved, capacity };
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
    const { present, reserved, structures, rootReserve, capacity } = volumeShares({ ...volume, bytes });
    const notGrown = bytes - present;
    const used = Math.min(capacity, volume.usedBytes ?? 0);
    const headroom = Math.min(capacity - used, Math.round(capacity * (volume.headroomShare ?? DEFAULT_HEADROOM)));
    const left = capacity - used - headroom;
    return { volume: volume.id, bytes, structures, notGrown, reserved, rootReserve, headroom, used, left };
  });
  return { volumes: ledgers, unassigned };
}
