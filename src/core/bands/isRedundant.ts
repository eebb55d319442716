import type { Band } from "./band";

/** Whether a band can give a lost member's content back. */
export function isRedundant(band: Band): boolean {
  return band.scheme.kind !== "single" && band.scheme.kind !== "stripe";
}
