import type { Band } from "../bands/band";
import type { Drive } from "../document/plan";
import { sequentialRate } from "../drives/rates";
import { hoursFor, type Hours } from "../time/hours";

/**
 * The hours of a pass over all members of some bands, each at the share of its drive's rate that its band reaches: the
 * drive that takes longest decides.
 *
 * @param shareOf the share of the sequential rate that such work reaches on a band, above 0
 * @param part of each member that is worked through, 0 to 1
 * @example bandHours(raid5OfThree4TB, drives, verifyShare).expected // 9.3: 4 TB at 0.8 of 150 MB/s
 */
export function bandHours(
  bands: readonly Band[],
  drives: readonly Drive[],
  shareOf: (band: Band) => number,
  part = 1,
): Hours {
  const rateOf = new Map(drives.map((drive) => [drive.id, sequentialRate(drive)]));
  const seconds = new Map<string, number>();
  for (const band of bands)
    for (const { drive, length } of band.members) {
      const rate = (rateOf.get(drive) ?? Infinity) * shareOf(band);
      seconds.set(drive, (seconds.get(drive) ?? 0) + ((length + band.metadata) * part) / rate);
    }
  return hoursFor(Math.max(0, ...seconds.values()), 1);
}
