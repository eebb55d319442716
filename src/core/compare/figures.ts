import { underParity } from "../bands/underParity";
import type { Bytes } from "../bytes/bytes";
import type { BoxRules, Drive } from "../document/plan";
import type { Survival } from "../failures/survival";
import { chunkCopiesOf } from "../layouts/chunks";
import { layoutOf } from "../layouts/registry";
import type { PoolPrediction } from "../prediction/predictPool";
import { limitedSpeed, speedOf, type Speed } from "../speeds/speed";
import type { Hours } from "../time/hours";
import { chanceOfChoice, type ChanceSetting, type ChoiceChance, type ChoiceRange } from "./choiceChance";
import { growthOf, type Growth } from "./growth";

/** What a pool is compared by. Everything is taken from its prediction. */
export interface Figures {
  usableBytes: Bytes;
  tolerance: number;
  /** For 1, 2, 3 and 4 drives lost at once, how many of all sets it survives. */
  survival: Survival[];
  /** Whether beyond the tolerance only what is on the failed drives is lost. */
  independent: boolean;
  /** Room that the layout has no use for, and its share of the drives' bytes. */
  idleBytes: Bytes;
  idleShare: number;
  /** Null where nothing can be said. */
  speed: Speed | null;
  /** Of the drive that takes longest; null where nothing can be rebuilt. */
  rebuild: Hours | null;
  /** The most that is read of all other drives together when one is rebuilt, in bytes. */
  rebuildReads: Bytes | null;
  /** Of the drives in it, in the owner's currency, and for a usable TB (10^12 B); null where a drive has no price. */
  price: number | null;
  pricePerTB: number | null;
  drives: number;
  growth: Growth;
  /** How likely it loses something; null where that is not worked out. */
  chance: ChoiceChance | null;
  /** The range of that, once it is known. */
  chanceRange: ChoiceRange | null;
}

/** Data is striped over the groups of a pool, so their speeds add up, until processor or network is at its end. */
function poolSpeed(
  pool: PoolPrediction,
  driveOf: ReadonlyMap<string, Drive>,
  rules: BoxRules,
  network: number,
): Speed | null {
  const speeds = pool.groups.map((group) =>
    speedOf(
      group.bands,
      group.drives.flatMap((id) => driveOf.get(id) ?? []),
      Infinity,
      { parityRateLimit: null },
      chunkCopiesOf(layoutOf(group.layout)),
    ),
  );
  if (speeds.length === 0 || speeds.some((speed) => speed === null)) return null;
  const sum = (of: "read" | "write" | "smallWrites") => speeds.reduce((total, speed) => total + (speed?.[of] ?? 0), 0);
  const drives = { read: sum("read"), write: sum("write"), smallWrites: sum("smallWrites") };
  return limitedSpeed(
    drives,
    pool.groups.some(({ bands }) => underParity(bands.slice(0, 1))),
    network,
    rules,
  );
}

/**
 * What a predicted pool is compared by.
 *
 * @param network what the network carries, in bytes per second
 * @param chances what its chance of loss is worked out with; none, where it is not
 * @example figuresOf(predictPool(clinicPool, driveOf, rules), driveOf, rules, 117e6).tolerance // 1
 */
export function figuresOf(
  pool: PoolPrediction,
  driveOf: ReadonlyMap<string, Drive>,
  rules: BoxRules,
  network: number,
  chances?: ChanceSetting,
): Figures {
  const groups = pool.groups.map((group) => ({ group, drives: group.drives.flatMap((id) => driveOf.get(id) ?? []) }));
  const drives = groups.flatMap((each) => each.drives);
  const bytes = drives.reduce((sum, drive) => sum + drive.bytes, 0);
  const idleBytes = pool.ledger.find((entry) => entry.cause === "idle")?.bytes ?? 0;
  const rebuilt = pool.groups.flatMap((group) => group.rebuilds.filter((rebuild) => rebuild.hours !== null));
  const rebuilds = rebuilt.flatMap((rebuild) => rebuild.hours ?? []);
  const price = drives.every((drive) => drive.price !== undefined)
    ? drives.reduce((sum, drive) => sum + (drive.price ?? 0), 0)
    : null;
  return {
    usableBytes: pool.usableBytes,
    tolerance: pool.tolerance,
    survival: pool.survival,
    independent: pool.groups.every((group) => group.bands.every((band) => band.independent)),
    idleBytes,
    idleShare: bytes === 0 ? 0 : idleBytes / bytes,
    speed: poolSpeed(pool, driveOf, rules, network),
    rebuild: rebuilds.reduce<Hours | null>(
      (longest, each) => (longest === null || each.expected > longest.expected ? each : longest),
      null,
    ),
    rebuildReads: rebuilt.length === 0 ? null : Math.max(...rebuilt.map((each) => each.readsInAll)),
    price,
    pricePerTB: price === null || pool.usableBytes === 0 ? null : price / (pool.usableBytes / 1e12),
    drives: drives.length,
    growth: growthOf(groups, rules),
    chance: chances ? chanceOfChoice(pool, driveOf, chances) : null,
    chanceRange: null,
  };
}
