import type { Band } from "../bands/band";
import { isRedundant } from "../bands/isRedundant";
import { hasParity } from "../bands/underParity";
import type { Bytes } from "../bytes/bytes";
import type { BoxRules, Drive } from "../document/plan";
import { rebuildShareOf } from "../bands/workShare";
import { selfTestHours, sequentialRate } from "../drives/rates";
import { hoursFor, type Hours } from "../time/hours";
import { type Pace, workRate } from "./pace";

/** What replacing a drive by an equal one takes. */
export interface Rebuild {
  drive: string;
  /** Bytes written to the new drive. */
  writes: Bytes;
  /** Bytes read from each of the others that take part, the most of any one. */
  reads: Bytes;
  /** Bytes read from all the others together. */
  readsInAll: Bytes;
  /** Null where nothing can be rebuilt, since the drive's bands have no redundancy. */
  hours: Hours | null;
  /** Of an extended self-test of the drive. */
  selfTest: Hours;
}

/**
 * What the rebuild of each drive of a group takes: its occupied length at 0.60 of the rate of the slowest drive that
 * takes part, beside parity drives at 0.95 of it, as the owner's preference moves that; what parity is worked out for
 * waits for the processor. A box that copies only what is used is quicker, by the share that is used.
 *
 * @param used the share of the pool that is in use, 0 to 1
 * @param only the drives of which the rebuild is wanted, where not all
 * @example rebuildsOf(raid5Bands, threeOf4TB, rules, 1)[0].hours.expected // 12.3
 */
export function rebuildsOf(
  bands: readonly Band[],
  drives: readonly Drive[],
  rules: Pick<BoxRules, "rebuilding"> & Pace,
  used: number,
  only: readonly Drive[] = drives,
): Rebuild[] {
  const rateOf = new Map(drives.map((drive) => [drive.id, sequentialRate(drive)]));
  const share = rules.rebuilding === "used-only" ? used : 1;
  return only.map((drive) => {
    const own = bands.filter((band) => isRedundant(band) && band.members.some((member) => member.drive === drive.id));
    const read = new Map<string, Bytes>();
    let [writes, underParity] = [0, 0];
    for (const band of own) {
      for (const member of band.members) {
        if (member.drive !== drive.id) read.set(member.drive, (read.get(member.drive) ?? 0) + member.length);
        else {
          writes += member.length;
          if (hasParity(band)) underParity += member.length;
        }
      }
    }
    const slowest = Math.min(...[drive.id, ...read.keys()].map((id) => rateOf.get(id) ?? Infinity));
    const rate = (parity: boolean) => workRate(slowest, rebuildShareOf(own), rules, parity);
    const most = Math.max(0, ...read.values());
    const copied = (bytes: Bytes) => Math.round(bytes * share);
    return {
      drive: drive.id,
      writes: copied(writes),
      reads: copied(most),
      readsInAll: copied([...read.values()].reduce((sum, bytes) => sum + bytes, 0)),
      hours:
        own.length === 0
          ? null
          : hoursFor(copied(underParity) / rate(true) + copied(writes - underParity) / rate(false), 1),
      selfTest: selfTestHours(drive),
    };
  });
}
