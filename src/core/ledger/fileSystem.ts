import type { Bytes } from "../bytes/bytes";
import { GiB, KiB, MiB, TiB } from "../bytes/bytes";
import type { FileSystem } from "../document/plan";

/** What a file system takes of its volume before anything is stored, in bytes. */
export interface FileSystemShare {
  /** Its own structures. */
  structures: Bytes;
  /** Reserved for root. */
  rootReserve: Bytes;
}

/** ext4 keeps 5 % of its blocks for root. */
const EXT4_ROOT_SHARE = 0.05;
/** Of every 128 MiB, two blocks of 4 KiB for bitmaps. */
const EXT4_BITMAP_SHARE = (8 * KiB) / (128 * MiB);
const EXT4_INODE_BYTES = 256;

/** One inode of 256 B per 16 KiB below 4 TiB, per 32 KiB below 16 TiB, then per 64 KiB. */
function ext4InodeShare(bytes: Bytes): number {
  const spacing = bytes < 4 * TiB ? 16 * KiB : bytes < 16 * TiB ? 32 * KiB : 64 * KiB;
  return EXT4_INODE_BYTES / spacing;
}

/** The journal by the size of the file system. */
function ext4Journal(bytes: Bytes): Bytes {
  if (bytes >= 128 * GiB) return GiB;
  return bytes >= 32 * GiB ? 512 * MiB : bytes >= 16 * GiB ? 256 * MiB : bytes >= GiB ? 64 * MiB : 16 * MiB;
}

/** XFS: a log of 1/2048 of the device, at most 2 GiB, and 0.70 % that is used from the start. */
const XFS_LOG_SHARE = 1 / 2048;
const XFS_USED_SHARE = 0.00698;
/** Btrfs: 2.2 GB that are not for data, and metadata that grows with the files: 0.3 to 1 %, taken as 0.5 %. */
const BTRFS_FIXED = 2.2e9;
export const BTRFS_METADATA = { low: 0.003, expected: 0.005, high: 0.01 };

/**
 * What a file system takes of a volume, from measured figures (0.5 to 12 TB). For Btrfs it is an estimate.
 *
 * @returns bytes that together never exceed the volume
 * @example fileSystemShare("ext4", 4e12) // { structures: 63 817 …, rootReserve: 200 000 000 000 }: 1.60 % and 5 %
 */
export function fileSystemShare(fileSystem: FileSystem, bytes: Bytes): FileSystemShare {
  const within = (wanted: number) => Math.min(bytes, Math.round(wanted));
  switch (fileSystem) {
    case "none":
      return { structures: 0, rootReserve: 0 };
    case "ext4": {
      const structures = within(bytes * (ext4InodeShare(bytes) + EXT4_BITMAP_SHARE) + ext4Journal(bytes));
      return { structures, rootReserve: Math.min(bytes - structures, Math.round(bytes * EXT4_ROOT_SHARE)) };
    }
    case "xfs":
      return { structures: within(Math.min(bytes * XFS_LOG_SHARE, 2 * GiB) + bytes * XFS_USED_SHARE), rootReserve: 0 };
    case "btrfs":
      return { structures: within(BTRFS_FIXED + bytes * BTRFS_METADATA.expected), rootReserve: 0 };
  }
}
