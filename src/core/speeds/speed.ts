import type { Band } from "../bands/band";
import type { Drive } from "../document/plan";
import { hasParity } from "../bands/underParity";
import { sequentialRate } from "../drives/rates";
import type { Pace } from "./pace";

/** What holds a speed back. */
export type SpeedLimit = "drives" | "processor" | "network";

/** A rough sequential speed in bytes per second, and what holds it back. */
export interface Speed {
  read: number;
  write: number;
  /** Small writes, each to its own place, in units of what one drive does. */
  smallWrites: number;
  readLimit: SpeedLimit;
  writeLimit: SpeedLimit;
}

/** What networks carry, in bytes per second. */
export const NETWORKS = [
  { name: "1 GbE", rate: 117e6 },
  { name: "2.5 GbE", rate: 290e6 },
  { name: "10 GbE", rate: 1170e6 },
] as const;

/** What a group does in units of what one drive does. */
type Units = Pick<Speed, "read" | "write" | "smallWrites">;

/**
 * Long reads and writes, and small writes, in units of one drive's. Under parity a small write reads and writes its own
 * block and each block of parity: n ÷ 4 with one, n ÷ 6 with two. A dedicated parity drive: 1 and about 0.4.
 */
function units(band: Band): Units {
  const n = band.members.length;
  switch (band.scheme.kind) {
    case "single":
      return { read: 1, write: 1, smallWrites: 1 };
    case "stripe":
      return { read: n, write: n, smallWrites: n };
    case "mirror":
      return { read: n, write: 1, smallWrites: 1 };
    case "striped-mirrors":
      return { read: n, write: n / 2, smallWrites: n / 2 };
    case "parity":
    case "chunk-parity": {
      const { parity } = band.scheme;
      return { read: n - parity, write: n - parity, smallWrites: n / (2 * (parity + 1)) };
    }
    case "dedicated-parity":
      return { read: 1, write: 0.4, smallWrites: 0.4 };
  }
}

/**
 * The rough speed of a group over a network: that of its bottom band, at the rate of the slowest member. Chunk copies
 * are spread over all drives (n and n ÷ copies). What has parity is no faster than the processor works it out.
 *
 * @param network what the network carries, in bytes per second
 * @returns null without bands
 * @example speedOf(raid5BandsOfThree, threeOf4TB, 117e6, rules)
 * // { read: 117e6, write: 117e6, readLimit: "network", writeLimit: "network" }
 */
export function speedOf(
  bands: readonly Band[],
  drives: readonly Drive[],
  network: number,
  pace: Pick<Pace, "parityRateLimit">,
  chunkCopies = 0,
): Speed | null {
  const [bottom] = bands;
  if (!bottom) return null;
  const members =
    chunkCopies > 0 ? drives : drives.filter((drive) => bottom.members.some((member) => member.drive === drive.id));
  const rate = Math.min(...members.map(sequentialRate));
  const n = drives.length;
  const { read, write, smallWrites } =
    chunkCopies > 0 ? { read: n, write: n / chunkCopies, smallWrites: n / chunkCopies } : units(bottom);
  return limitedSpeed({ read: read * rate, write: write * rate, smallWrites }, hasParity(bottom), network, pace);
}

/**
 * The speed that comes of what drives could do, where the processor or the network is slower.
 *
 * @param parity whether parity is worked out, for which the processor can be too slow
 * @example limitedSpeed({ read: 450e6, write: 300e6, smallWrites: 1 }, true, 117e6, { parityRateLimit: 40e6 }).writeLimit
 * // "processor"
 */
export function limitedSpeed(
  drives: Units,
  parity: boolean,
  network: number,
  { parityRateLimit }: Pick<Pace, "parityRateLimit">,
): Speed {
  const processor = parity ? (parityRateLimit ?? Infinity) : Infinity;
  const limited = (rate: number): { rate: number; limit: SpeedLimit } => {
    const least = Math.min(rate, processor, network);
    return { rate: least, limit: least === rate ? "drives" : least === network ? "network" : "processor" };
  };
  const [reading, writing] = [limited(drives.read), limited(drives.write)];
  const { smallWrites } = drives;
  return { read: reading.rate, write: writing.rate, smallWrites, readLimit: reading.limit, writeLimit: writing.limit };
}
