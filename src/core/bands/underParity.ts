import type { Band } from "./band";

/** Whether a band keeps parity, which has to be worked out when it is filled, rebuilt or rewritten. */
export const hasParity = ({ scheme }: Pick<Band, "scheme">): boolean => "parity" in scheme;

/**
 * Whether any of some bands keeps parity: what has parity writes every change in place, which shingled drives bear
 * badly.
 */
export function underParity(bands: readonly Band[]): boolean {
  return bands.some(hasParity);
}
