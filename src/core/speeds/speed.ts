import type { Band } from "../bands/band";
import type { Drive } from "../document/plan";
import { sequentialRate } from "../drives/rates";

/** A rough sequential speed in bytes per second, and what holds it back. */
export interface Speed {
  read: number;
  write: number;
  readLimit: "drives" | "network";
  writeLimit: "drives" | "network";
}

/** What networks carry, in bytes per second. */
export const NETWORKS = [
  { name: "1 GbE", rate: 117e6 },
  { name: "2.5 GbE", rate: 290e6 },
  { name: "10 GbE", rate: 1170e6 },
] as const;

/** Long reads and writes in units of one drive's rate. A dedicated parity drive: 1 and about 0.4. */
function units(band: Band): { read: number; write: number } {
  const n = band.members.length;
  switch (band.scheme.kind) {
    case "single":
      return { read: 1, write: 1 };
    case "stripe":
      return { read: n, write: n };
    case "mirror":
      return { read: n, write: 1 };
    case "striped-mirrors":
      return { read: n, write: n / 2 };
    case "parity":
    case "chunk-parity":
      return { read: n - band.scheme.parity, write: n - band.scheme.parity };
    case "dedicated-parity":
      return { read: 1, write: 0.4 };
  }
}

/**
 * The rough speed of a group over a network: that of its bottom band, at the rate of the slowest member. Chunk copies
 * are spread over all drives (n and n ÷ copies).
 *
 * @param network what the network carries, in bytes per second
 * @returns null without bands
 * @example speedOf(raid5BandsOfThree, threeOf4TB, 117e6) // { read: 117e6, write: 117e6, readLimit: "network", writeLimit: "network" }
 */
export function speedOf(
  bands: readonly Band[],
  drives: readonly Drive[],
  network: number,
  chunkCopies = 0,
): Speed | null {
  const [bottom] = bands;
  if (!bottom) return null;
  const members =
    chunkCopies > 0 ? drives : drives.filter((drive) => bottom.members.some((member) => member.drive === drive.id));
  const rate = Math.min(...members.map(sequentialRate));
  const { read, write } = chunkCopies > 0 ? { read: drives.length, write: drives.length / chunkCopies } : units(bottom);
  const limited = (drivesRate: number) => ({
    rate: Math.min(drivesRate, network),
    limit: drivesRate > network ? ("network" as const) : ("drives" as const),
  });
  const [reading, writing] = [limited(read * rate), limited(write * rate)];
  return { read: reading.rate, write: writing.rate, readLimit: reading.limit, writeLimit: writing.limit };
}
