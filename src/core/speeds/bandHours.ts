import type { Band } from "../bands/band";
import { hasParity } from "../bands/underParity";
import type { Drive } from "../document/plan";
import { sequentialRate } from "../drives/rates";
import { hoursFor, type Hours } from "../time/hours";
import { type Pace, workRate } from "./pace";

/**
 * The hours of a pass over all members of some bands, each at the share of its drive's rate that its band reaches: the
 * drive that takes longest decides.
 *
 * @param shareOf the share of the sequential rate that such work reaches on a band, above 0
 * @param pace the owner's preference, and the processor's cap on parity work
 * @param part of each member that is worked through, 0 to 1
 * @param withParity whether parity is worked out for a band; where it has parity, if nothing is said
 * @example bandHours(raid5OfThree4TB, drives, verifyShare, rules).expected // 9.3: 4 TB at 0.8 of 150 MB/s
 */
export function bandHours(
  bands: readonly Band[],
  drives: readonly Drive[],
  shareOf: (band: Band) => number,
  pace: Pace,
  part = 1,
  withParity: (band: Band) => boolean = hasParity,
): Hours {
  const rateOf = new Map(drives.map((drive) => [drive.id, sequentialRate(drive)]));
  const seconds = new Map<string, number>();
  for (const band of bands)
    for (const { drive, length } of band.members) {
      const rate = workRate(rateOf.get(drive) ?? Infinity, shareOf(band), pace, withParity(band));
      seconds.set(drive, (seconds.get(drive) ?? 0) + ((length + band.metadata) * part) / rate);
    }
  return hoursFor(Math.max(0, ...seconds.values()), 1);
}
