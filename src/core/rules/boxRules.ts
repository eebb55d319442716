import type { ArrayFormat } from "../bands/arrayFormat";
import type { Bytes } from "../bytes/bytes";
import type { Severity } from "../findings/finding";
import type { LayoutId } from "../layouts/layout";

/** The ready-made sets of rules, named by the kind of box. */
export type RuleSetId = "linux-host" | "classic-raid" | "hybrid-box";

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
