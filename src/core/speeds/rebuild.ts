import type { Band } from "../bands/band";
import { isRedundant } from "../bands/isRedundant";
import type { Bytes } from "../bytes/bytes";
import type { BoxRules, Drive } from "../document/plan";
import { rebuildShareOf } from "../bands/workShare";
import { selfTestRate, sequentialRate } from "../drives/rates";
import { hoursFor, type Hours } from "../time/hours";

/** What replacing a drive by an equal one takes. */
export interface Rebuild {
  drive: string;
  /** Bytes written to the new drive. */
  writes: Bytes;
  /** Bytes read from each of the others that take part, the most of any one. */
  reads: Bytes;
  /** Null where nothing can be rebuilt, since the drive's bands have no redundancy. */
  hours: Hours | null;
  /** Of an extended self-test of the drive. */
  selfTest: Hours;
}

/**
 * What the rebuild of each drive of a group takes: its occupied length at 0.60 of the rate of the slowest drive that
 * takes part, beside parity drives at 0.95 of it. A box that copies only what is used is quicker, by the share that is
 * used.
 *
 * @param used the share of the pool that is in use, 0 to 1
 * @param only the drives of which the rebuild is wanted, where not all
 * @example rebuildsOf(raid5Bands, threeOf4TB, rules, 1)[0].hours.expected // 12.3
 */
export function rebuildsOf(
  bands: readonly Band[],
  drives: readonly Drive[],
  rules: Pick<BoxRules, "rebuilding">,
  used: number,
  only: readonly Drive[] = drives,
): Rebuild[] {
  const rateOf = new Map(drives.map((drive) => [drive.id, sequentialRate(drive)]));
  const share = rules.rebuilding === "used-only" ? used : 1;
  return only.map((drive) => {
    const own = bands.filter((band) => isRedundant(band) && band.members.some((member) => member.drive === drive.id));
    const read = new Map<string, Bytes>();
    let writes = 0;
    for (const band of own) {
      for (const member of band.members) {
        if (member.drive === drive.id) writes += member.length;
        else read.set(member.drive, (read.get(member.drive) ?? 0) + member.length);
      }
    }
    const slowest = Math.min(...[drive.id, ...read.keys()].map((id) => rateOf.get(id) ?? Infinity));
    const most = Math.max(0, ...read.values());
    const copied = (bytes: Bytes) => Math.round(bytes * share);
    return {
      drive: drive.id,
      writes: copied(writes),
      reads: copied(most),
      hours: own.length === 0 ? null : hoursFor(copied(Math.max(writes, most)), slowest * rebuildShareOf(own)),
      selfTest: hoursFor(drive.bytes, selfTestRate(drive)),
    };
  });
}
