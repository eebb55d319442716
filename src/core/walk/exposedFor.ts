import type { Exposure, WalkedStep } from "./moment";

/**
 * For how many of a step's hours pools are exposed in some way.
 *
 * @example exposedFor(walked, ({ redundancy }) => redundancy <= 0) // 12.3 of a rebuild that then grows for 35 h
 */
export const exposedFor = ({ exposure, from, to }: WalkedStep, which: (each: Exposure) => boolean): number =>
  (to - from) * Math.max(0, ...exposure.filter(which).map(({ share = 1 }) => share));
