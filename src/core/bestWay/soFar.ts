import type { Label } from "./label";

/** How far a search is. */
export interface SoFar {
  /** The best way that has been found. */
  best: Label | null;
  /** No way costs less than this, in cents. */
  least: number;
  /** How many boxes have been come across. */
  boxes: number;
}
