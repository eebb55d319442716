import type { Bytes } from "../bytes/bytes";
import { formatBytes, formatExactBytes, type UnitFamily } from "../bytes/formatBytes";

/** Drives of one size on the label differ by less than this share. */
const A_HAIR = 0.001;

/**
 * By how much a drive is too small, and what would have let it in where it is only a hair.
 *
 * @param short how much it lacks, in bytes
 * @param height what it must reach, in bytes
 */
export function shortBy(short: Bytes, height: Bytes, family: UnitFamily): { by: string; help: string } {
  return short < height * A_HAIR
    ? {
        by: formatExactBytes(short),
        help: " Next time leave 0.1 % of each drive unused; then such a drive fits.",
      }
    : { by: formatBytes(short, family), help: "" };
}
