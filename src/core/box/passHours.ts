import type { Bytes } from "../bytes/bytes";
import type { Drive, Plan } from "../document/plan";
import { sequentialRate } from "../drives/rates";
import { type Pace, workRate } from "../speeds/pace";
import { hoursFor, type Hours } from "../time/hours";
import { drivesOf } from "./find";

/** The slowest sequential rate among some drives, in bytes per second. */
export function slowestRate(drives: readonly Drive[]): number {
  return Math.min(...drives.map(sequentialRate), Infinity);
}

/**
 * The hours of a pass over drives that each work through bytes of their own at a share of their own rate: the slowest
 * decides. No time where there is nothing to work through.
 *
 * @param share of the sequential rate that such work reaches
 * @param parity whether parity has to be worked out
 */
export function passHours(
  plan: Plan,
  bytes: ReadonlyMap<string, Bytes>,
  share: number,
  pace: Pace,
  parity: boolean,
): Hours {
  const seconds = Math.max(
    0,
    ...drivesOf(plan, [...bytes.keys()]).map(
      (drive) => (bytes.get(drive.id) ?? 0) / workRate(sequentialRate(drive), share, pace, parity),
    ),
  );
  return hoursFor(seconds, 1);
}
