import type { ArrayFormat } from "../bands/arrayFormat";
import type { Bytes } from "../bytes/bytes";
import type { Severity } from "../findings/finding";
import type { LayoutId } from "../layouts/layout";

/** The ready-made sets of rules, named by the kind of box. */
export type RuleSetId =
  | "linux-host"
  | "classic-raid"
  | "hybrid-box"
  | "fixed-group"
  | "parity-drive"
  | "scheduled-parity"
  | "chunk-copies"
  | "desktop-mirror";

/** How much it matters to a box that drives of one group differ: not at all, or as a finding of this weight. */
export type Mixing = "fine" | Severity;

/** What a box can do and what it insists on. Every figure and every check takes them from here. */
export interface BoxRules {
  /** The layouts that the box offers. */
  layouts: LayoutId[];
  /** Where the box wants more drives for a layout than the layout itself does, or takes fewer than is usual. */
  minimumDrives: Partial<Record<LayoutId, number>>;
  /** What the box keeps on every drive for its own partitions, in bytes. */
  systemReserveBytes: Bytes;
  /** The share of each drive left unused so that a slightly smaller replacement fits, 0 to 0.1. */
  rightSizeShare: number;
  /** How arrays are written onto their members. */
  arrayFormat: ArrayFormat;
  /** Hard disk with flash in one group. */
  mixedMedia: Mixing;
  /** Different interfaces in one group. */
  mixedBuses: Mixing;
  /** Different logical sector sizes in one group. */
  mixedSectors: Mixing;
  /** A USB-attached drive in a group. */
  usbMembers: Mixing;
  /** How the box's own screen shows sizes. */
  sizesShown: "decimal" | "binary" | "binary-printed-as-decimal";
  /** The share of a pool that the box keeps for itself, 0 to 0.1. */
  poolReserveShare: number;
  /** How a group grows: by one drive, by several at once, or not at all (the pool only by a further group). */
  widening: "one-drive" | "several-drives" | "further-group";
  /** Which changes of level it makes: none, one step at a time (mirror, single, double parity), or any in one go. */
  levelChanges: "none" | "one-at-a-time" | "in-one-go";
  /** The smallest drive that may join a group. */
  joining: "as-smallest-member" | "as-largest-member" | "up-to-parity" | "any-size";
  /** Whether a drive is replaced with the old one still attached, or only by pulling it. */
  replacing: "old-attached" | "pull-first";
  /** When the room of larger replacements appears: by itself, or after a claim for each drive or the whole group. */
  claiming: "by-itself" | "per-drive" | "whole-group";
  /** Whether volume and file system grow by themselves. */
  growing: "by-itself" | "by-hand";
  /** Whether a volume can be made smaller. */
  shrinkVolumes: boolean;
  /** Whether a drive is changed while the box runs, with the power off, or with the pool stopped. */
  swapping: "hot-swap" | "power-off" | "stop-pool";
  /** Whether the system has a drive of its own or partitions on all drives. */
  system: "own-drive" | "on-all-drives";
  /** Which hot spares it knows. */
  hotSpares: "none" | "per-group" | "shared";
  /** Whether parity is written at once or by schedule. */
  parityWrites: "at-once" | "by-schedule";
  /** Whether a rebuild copies the whole drive or only what is used. */
  rebuilding: "whole-drive" | "used-only";
}

/** A ready-made set: its name, a short description, and its settings. */
export interface RuleSet {
  id: RuleSetId;
  name: string;
  description: string;
  rules: BoxRules;
}

/** How a plan names its rules: a set, and what differs from it. */
export interface RulesChoice {
  set: RuleSetId;
  overrides?: Partial<BoxRules>;
}
