import type { LayoutId } from "../document/plan";

/** A change of level as it is asked for. */
export interface LevelChange {
  from: LayoutId;
  to: LayoutId;
  /** How many drives the group has, join and leave. */
  drives: number;
  joining: number;
  leaving: number;
  /** Whether all its drives are of one size. */
  equal: boolean;
  /** The places of those that leave, in the order in which the group's bands name the drives, from 0. */
  places?: readonly number[];
}

/**
 * A level change that a box can make in one go, and what it wants. Measured on the kernel's RAID driver; the other
 * boxes
 * make those that add protection.
 */
export interface LevelPath {
  to: LayoutId;
  /** Why it does not go with so many drives, or null. */
  refuses: (change: LevelChange) => string | null;
  /** The order of the group's drives after it, where the ones that join do not simply come last. */
  arranges?: (members: readonly string[], joining: readonly string[]) => string[];
  /** Only the kernel's RAID driver makes it. */
  linuxOnly?: true;
  /** Whether it has been measured to end in wrong data where it was interrupted on a Linux host. */
  failedInterrupted?: true;
  /** A rung of the ladder of levels: what a box that changes levels in one go can pass through on its way. */
  rung?: true;
}

/** A reason, or null where all is well. */
export const unless = (ok: boolean, reason: string): string | null => (ok ? null : reason);
