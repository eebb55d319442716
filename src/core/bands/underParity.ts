import type { Band } from "./band";

/**
 * Whether any of some bands keeps parity: what has parity writes every change in place, which shingled drives bear
 * badly.
 */
export function underParity(bands: readonly Band[]): boolean {
  return bands.some((band) => "parity" in band.scheme);
}
