import { REBUILD_SHARE, STRAIGHT_SHARE, VERIFY_SHARE } from "../drives/rates";
import type { Band } from "./band";

/** Drives that hold nothing but parity, beside drives with file systems of their own, are worked through in one go. */
const isStraight = ({ scheme }: Pick<Band, "scheme">): boolean => scheme.kind === "dedicated-parity";

/**
 * The share of its drives' sequential rate at which a band is filled for the first time, and rebuilt.
 *
 * @example rebuildShare({ scheme: { kind: "parity", parity: 1 } }) // 0.6
 */
export const rebuildShare = (band: Pick<Band, "scheme">): number => (isStraight(band) ? STRAIGHT_SHARE : REBUILD_SHARE);

/**
 * The share of its drives' sequential rate at which a band is read and compared, or its parity brought up to date.
 *
 * @example verifyShare({ scheme: { kind: "dedicated-parity", parity: 1 } }) // 0.95
 */
export const verifyShare = (band: Pick<Band, "scheme">): number => (isStraight(band) ? STRAIGHT_SHARE : VERIFY_SHARE);

/** The same of several bands that are worked through together; that of the slowest. */
export const rebuildShareOf = (bands: readonly Pick<Band, "scheme">[]): number =>
  Math.min(STRAIGHT_SHARE, ...bands.map(rebuildShare));
