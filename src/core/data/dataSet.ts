import type { Bytes } from "../bytes/bytes";
import type { DataSet } from "../document/plan";

/** Days of a mean month and a mean year (400 years have 146 097 days). */
export const DAYS_OF_MONTH = 146_097 / 4800;
export const DAYS_OF_YEAR = 146_097 / 400;

/**
 * How large a data set is after some days; part of a month or a year counts as its part.
 *
 * @param days from today on, 0 or more
 * @returns bytes, at most the largest safe integer
 * @example sizeAfter({ bytes: 1e12, growth: { bytesPerMonth: 220e9 }, … }, 365.2425) // 3.64e12
 */
export function sizeAfter(set: Pick<DataSet, "bytes" | "growth">, days: number): Bytes {
  const { growth } = set;
  const grown =
    growth === undefined
      ? set.bytes
      : "bytesPerMonth" in growth
        ? set.bytes + growth.bytesPerMonth * (days / DAYS_OF_MONTH)
        : set.bytes * (1 + growth.sharePerYear) ** (days / DAYS_OF_YEAR);
  return Math.min(Number.MAX_SAFE_INTEGER, Math.round(grown));
}
