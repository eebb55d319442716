import type { Drive } from "../document/plan";
import { hoursFor, type Hours } from "../time/hours";

/** Shares of a drive's sequential rate that work on a pool reaches. */
export const REBUILD_SHARE = 0.6;
export const RESHAPE_SHARE = 0.33;
export const VERIFY_SHARE = 0.8;
/** Where drives are read and written straight through, with no stripes between them. */
export const STRAIGHT_SHARE = 0.95;
const SELF_TEST_SHARE = 0.7;

/**
 * A drive's average sequential rate over its whole surface, in bytes per second, by default: hard disks up to 2 TB 130,
 * to 8 TB 150, above 190 MB/s; SATA flash 450, NVMe 1500 MB/s.
 *
 * @example sequentialRate({ bytes: 4_000_787_030_016, medium: "hdd", bus: "sata" }) // 150 000 000
 */
export function sequentialRate(drive: Pick<Drive, "bytes" | "medium" | "bus">): number {
  if (drive.medium === "ssd") return drive.bus === "nvme" ? 1500e6 : 450e6;
  if (drive.bytes < 2.5e12) return 130e6;
  return drive.bytes < 9e12 ? 150e6 : 190e6;
}

/**
 * The hours of an extended self-test: the minutes that the drive itself gives for it, else its surface at 0.7 of its
 * sequential rate.
 *
 * @example selfTestHours(fourTB).expected // 10.6: 4 TB at 105 MB/s
 */
export function selfTestHours(drive: Pick<Drive, "bytes" | "medium" | "bus" | "health">): Hours {
  const { selfTestMinutes } = drive.health;
  return selfTestMinutes === undefined
    ? hoursFor(drive.bytes, sequentialRate(drive) * SELF_TEST_SHARE)
    : hoursFor(selfTestMinutes * 60, 1);
}
