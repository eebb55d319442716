import type { Bytes } from "../bytes/bytes";
import type { FileSystem, NewDrive } from "../document/plan";

/** What is done to an array while it runs, as the kernel calls it. */
export type RunningKind = "recovery" | "resync" | "reshape" | "check";

/** Work under way on an array. */
export interface Running {
  kind: RunningKind;
  /** How much of it is done, from 0 to 1; null for work that waits for other work. */
  done: number | null;
  /** What the kernel expects until its end, in minutes; null where it says nothing. */
  minutesLeft: number | null;
  /** In bytes per second of each drive; null where nothing is said. */
  rate: number | null;
  /** What of each drive it goes through, in bytes; null where nothing is said. */
  total: Bytes | null;
}

/** A drive that a box's list names. */
export interface PrintedDrive {
  /** The kernel's name, "sda". */
  name: string;
  /** World-wide name; empty where none is printed. */
  wwn: string;
  /** As a plan keeps it, with what is on it. */
  drive: NewDrive;
}

/** What stands in an array: a drive, or a slice of one. */
export interface PrintedMember {
  /** The kernel's name of the drive; null where the list does not have it. */
  drive: string | null;
  /** What of it is the member: the drive itself or a partition. */
  device: string;
  /** In bytes; null where the list does not have it. */
  bytes: Bytes | null;
  /** Where it begins on its drive, in bytes. */
  start: Bytes;
}

/** The name by which the kernel calls the drive of a member. */
export const nameOf = (member: PrintedMember): string => member.drive ?? member.device;

/** An array of the kernel's RAID driver, as it is printed. */
export interface PrintedArray {
  /** "md0". */
  name: string;
  /** "raid5", "linear", …; null for one that does not run. */
  level: string | null;
  /** The version of its own notes on its members, "1.2"; those before it lie at the end. */
  metadata: string;
  /** Exactly; 0 for one that does not run. */
  bytes: Bytes;
  /** Its places from the first, null where one is empty; of an array that does not run the members that are known. */
  places: (PrintedMember | null)[];
  /** Members that have a place and are still being filled. */
  filling: PrintedMember[];
  spares: PrintedMember[];
  failed: PrintedMember[];
  /** Drives that are filled to take the place of a member, which is not printed. */
  replacing: PrintedMember[];
  journals: PrintedMember[];
  /** What carries the array's marks and is no part of it. */
  strangers: PrintedMember[];
  /** Members that a rewrite that is under way brings in. */
  joining: PrintedMember[];
  /** The level from which it is being rewritten, where that is another. */
  levelBefore: string | null;
  running: Running | null;
  /** Whether its members' roles are printed; otherwise they are guessed from its size. */
  rolesPrinted: boolean;
  /** How often each block is there in striped mirrors; null for other levels. */
  copies: number | null;
  /** Whether something of the running system lies on it. */
  carriesSystem: boolean;
}

/** A file system or logical volume, and what it lies on. */
export interface PrintedVolume {
  /** Label, last part of the mount point, or the device's name. */
  name: string;
  /** Of the set of logical volumes that it belongs to; empty where it is in none. */
  set: string;
  /** The kernel's name of the device, or of the first of several. */
  device: string;
  bytes: Bytes;
  fileSystem: FileSystem;
  /** As it is printed: "ext4", "vfat", "crypto_LUKS"; empty where there is none. */
  printed: string;
  /** How far the file system reaches, in bytes, and what is used of it; null where it is not mounted. */
  fileSystemBytes: Bytes | null;
  usedBytes: Bytes | null;
  mounts: string[];
  /** Names of the arrays and drives that it lies on, in order. */
  on: string[];
  /** Whether logical volumes are between, and whether these keep copies or parity of their own. */
  through: "nothing" | "volumes" | "redundant-volumes";
}

/** What a box has printed about itself, made out as far as no layout of a pool is concerned. */
export interface PrintedBox {
  /** The box's own name; empty where it is printed nowhere. */
  host: string;
  drives: PrintedDrive[];
  arrays: PrintedArray[];
  volumes: PrintedVolume[];
  /** Whether the list tells nothing of what is on drives. */
  knowsContents: boolean;
  /** What in the texts could not be made out, each in a sentence. */
  notMadeOut: string[];
}
