import type { Fate } from "./fate";

/**
 * What state a pool is in. *whole*: every drive is there; *degraded*: some are gone and nothing is lost; *rebuilding*:
 * the same, and a drive that is in the box already is being filled; *partly-lost*: what was on some independent drives
 * is lost; *lost*: nothing can be read.
 */
export type PoolState = "whole" | "degraded" | "rebuilding" | "partly-lost" | "lost";

/** The state of a pool at a moment, with what stands behind it. */
export interface Condition {
  state: PoolState;
  /** How many more drives can be lost, whichever, with nothing (more) lost; −1 where data is lost already. */
  redundancyLeft: number;
  /** Ids of the drives of its groups that have failed or are missing. */
  missing: string[];
  /** Ids of the drives whose own files cannot be read until they are restored. */
  unreadable: string[];
}

/**
 * The state that a fate comes to.
 *
 * @param rebuilding whether a drive in the box is being filled in the place of one that is gone
 * @example stateOf({ kind: "degraded", redundancy: 0, missing: ["d2"] }, false) // "degraded"
 */
export const stateOf = (fate: Fate, rebuilding: boolean): PoolState =>
  fate.kind === "degraded" && rebuilding ? "rebuilding" : fate.kind;

/** What a fate leaves: how many more can be lost; −1 where data is lost. */
export const leftOf = (fate: Fate): number =>
  fate.kind === "lost" || fate.kind === "partly-lost" ? -1 : fate.redundancy;
