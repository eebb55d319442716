import type { Drive } from "../document/plan";

/**
 * Whether a drive has failed or is not in the box: it holds nothing for any pool, and cannot be put to use.
 *
 * @example isGone({ state: "missing" }) // true
 */
export const isGone = ({ state }: Pick<Drive, "state">): boolean => state !== undefined;

/**
 * What has become of a drive that is gone, in words.
 *
 * @example goneWords({ state: "failed" }) // "has failed"
 */
export const goneWords = ({ state }: Pick<Drive, "state">): string =>
  state === "missing" ? "is missing" : "has failed";
