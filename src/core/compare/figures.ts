import type { Bytes } from "../bytes/bytes";
import type { BoxRules, Drive } from "../document/plan";
import type { Survival } from "../failures/survival";
import { chunkCopiesOf } from "../layouts/chunks";
import { layoutOf } from "../layouts/registry";
import type { PoolPrediction } from "../prediction/predictPool";
import { speedOf, type Speed } from "../speeds/speed";
import type { Hours } from "../time/hours";
import { growthOf, type Growth } from "./growth";

/** What a pool is compared by. Everything is taken from its prediction. */
export interface Figures {
  usableBytes: Bytes;
  tolerance: number;
  /** For 1, 2, 3 and 4 drives lost at once, how many of all sets it survives. */
  survival: Survival[];
  /** Room that the layout has no use for, and its share of the drives' bytes. */
  idleBytes: Bytes;
  idleShare: number;
  /** Null where nothing can be said. */
  speed: Speed | null;
  /** Of the drive that takes longest; null where nothing can be rebuilt. */
  rebuild: Hours | null;
  /** Of the drives in it, in the owner's currency, and for a usable TB (10^12 B); null where a drive has no price. */
  price: number | null;
  pricePerTB: number | null;
  drives: number;
  growth: Growth;
}

/** Data is striped over the groups of a pool, so their speeds add up, until the network is full. */
function poolSpeed(pool: PoolPrediction, driveOf: ReadonlyMap<string, Drive>, network: number): Speed | null {
  const speeds = pool.groups.map((group) =>
    speedOf(
      group.bands,
      group.drives.flatMap((id) => driveOf.get(id) ?? []),
      Infinity,
      chunkCopiesOf(layoutOf(group.layout)),
    ),
  );
  if (speeds.length === 0 || speeds.some((speed) => speed === null)) return null;
  const sum = (of: "read" | "write") => speeds.reduce((total, speed) => total + (speed?.[of] ?? 0), 0);
  const [read, write] = [sum("read"), sum("write")];
  return {
    read: Math.min(read, network),
    write: Math.min(write, network),
    readLimit: read > network ? "network" : "drives",
    writeLimit: write > network ? "network" : "drives",
  };
}

/**
 * What a predicted pool is compared by.
 *
 * @param network what the network carries, in bytes per second
 * @example figuresOf(predictPool(clinicPool, driveOf, rules), driveOf, rules, 117e6).tolerance // 1
 */
export function figuresOf(
  pool: PoolPrediction,
  driveOf: ReadonlyMap<string, Drive>,
  rules: BoxRules,
  network: number,
): Figures {
  const groups = pool.groups.map((group) => ({ group, drives: group.drives.flatMap((id) => driveOf.get(id) ?? []) }));
  const drives = groups.flatMap((each) => each.drives);
  const bytes = drives.reduce((sum, drive) => sum + drive.bytes, 0);
  const idleBytes = pool.ledger.find((entry) => entry.cause === "idle")?.bytes ?? 0;
  const rebuilds = pool.groups.flatMap((group) => group.rebuilds.flatMap((rebuild) => rebuild.hours ?? []));
  const price = drives.every((drive) => drive.price !== undefined)
    ? drives.reduce((sum, drive) => sum + (drive.price ?? 0), 0)
    : null;
  return {
    usableBytes: pool.usableBytes,
    tolerance: pool.tolerance,
    survival: pool.survival,
    idleBytes,
    idleShare: bytes === 0 ? 0 : idleBytes / bytes,
    speed: poolSpeed(pool, driveOf, network),
    rebuild: rebuilds.reduce<Hours | null>(
      (longest, each) => (longest === null || each.expected > longest.expected ? each : longest),
      null,
    ),
    price,
    pricePerTB: price === null || pool.usableBytes === 0 ? null : price / (pool.usableBytes / 1e12),
    drives: drives.length,
    growth: growthOf(groups, rules),
  };
}
