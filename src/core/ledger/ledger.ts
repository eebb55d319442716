import type { Band } from "../bands/band";
import { contentsOf } from "../bands/contents";
import type { Bytes } from "../bytes/bytes";
import type { BoxRules, Volume } from "../document/plan";
import type { Room } from "../drives/room";
import { gapsOf } from "./gaps";
import { volumesOf } from "./volumes";

/**
 * Why bytes of the drives are not there to be filled; the last two are what is stored and what is left. In the order of
 * the ledger.
 */
export const LEDGER_CAUSES = [
  "system-reserve",
  "replacement-margin",
  "rounding",
  "idle",
  "spare",
  "copies",
  "parity",
  "metadata",
  "pool-reserve",
  "lost",
  "unassigned",
  "not-grown",
  "volume-reserve",
  "file-system",
  "root-reserve",
  "head-room",
  "used",
  "left",
] as const;

export type LedgerCause = (typeof LEDGER_CAUSES)[number];

/** One entry: this many bytes of these drives, for this cause. */
export interface LedgerEntry {
  cause: LedgerCause;
  bytes: Bytes;
  drives: string[];
}

/** A group as the ledger sees it: its drives' rooms and the bands that lie on them. */
export interface LedgerGroup {
  rooms: readonly Room[];
  bands: readonly Band[];
  /** In which the layout gives out space; 1 MiB where nothing is said. */
  allocationUnit?: Bytes;
}

/** The rules about what the box keeps of a pool. */
export type PoolReserveRules = Pick<BoxRules, "poolReserveShare" | "poolReserveMaxBytes">;

/** What becomes of the space that the bands hold. */
export interface PoolShares {
  /** What the box keeps of the pool. */
  keeps: PoolReserveRules;
  volumes: readonly Volume[];
  /** What is lost with drives that are gone, in bytes. */
  lost?: Bytes;
}

/** The causes that together are usable space. */
export const USABLE_CAUSES: ReadonlySet<LedgerCause> = new Set([
  "unassigned",
  "not-grown",
  "volume-reserve",
  "file-system",
  "root-reserve",
  "head-room",
  "used",
  "left",
]);

/**
 * What the box keeps of a pool: its share, rounded up to the byte, but no more than its rules say at most.
 *
 * @example poolReserve(16e12, { poolReserveShare: 1 / 32, poolReserveMaxBytes: 128 * GiB }) // 137 438 953 472
 */
export function poolReserve(bytes: Bytes, { poolReserveShare, poolReserveMaxBytes }: PoolReserveRules): Bytes {
  return Math.min(bytes, Math.ceil(bytes * poolReserveShare), poolReserveMaxBytes ?? Infinity);
}

/**
 * Where every byte of a pool's drives went, in the order of `LEDGER_CAUSES`. The entries sum to the drives' bytes
 * exactly. Causes without a byte are left out, except `left`, which is always last. Usable space is everything from
 * `unassigned` on.
 *
 * @param groups the groups of the pool
 * @param spares rooms of its hot spares, which count whole
 * @param shares what the box keeps of the pool, and the volumes that the rest is given to
 * @example ledgerOf([{ rooms: roomsOf(4 TB, 8 TB), bands: mirrorBands }], [])
 * // idle 4 TB (the 8 TB drive), copies 4 TB (both), unassigned 4 TB (both)
 */
export function ledgerOf(
  groups: readonly LedgerGroup[],
  spares: readonly Room[],
  shares: PoolShares = { keeps: { poolReserveShare: 0, poolReserveMaxBytes: null }, volumes: [] },
): LedgerEntry[] {
  const sums = new Map<LedgerCause, { bytes: Bytes; drives: Set<string> }>();
  const add = (cause: LedgerCause, bytes: Bytes, drives: readonly string[]) => {
    if (bytes === 0 && cause !== "left") return;
    const sum = sums.get(cause) ?? { bytes: 0, drives: new Set<string>() };
    sum.bytes += bytes;
    drives.forEach((drive) => sum.drives.add(drive));
    sums.set(cause, sum);
  };

  let total = 0;
  const holders = new Set<string>();
  for (const { rooms, bands, allocationUnit } of groups) {
    const gaps = gapsOf(rooms, bands, allocationUnit);
    for (const room of rooms) {
      const { idle, rounding } = gaps.get(room.drive) ?? { idle: 0, rounding: 0 };
      add("system-reserve", room.systemReserve, [room.drive]);
      add("replacement-margin", room.replacementMargin, [room.drive]);
      add("rounding", rounding, [room.drive]);
      add("idle", idle, [room.drive]);
    }
    for (const band of bands) {
      const drives = band.members.map((member) => member.drive);
      const { data, copies, parity, rounding } = contentsOf(band);
      add("rounding", rounding, drives);
      add("copies", copies, drives);
      add("parity", parity, drives);
      add("metadata", band.metadata * band.members.length, drives);
      total += data;
      drives.forEach((drive) => holders.add(drive));
    }
  }
  for (const room of spares) add("spare", room.bytes, [room.drive]);
  const data = [...holders];
  const reserve = poolReserve(total, shares.keeps);
  add("pool-reserve", reserve, data);
  const { lost = 0 } = shares;
  add("lost", lost, data);
  const { volumes, unassigned } = volumesOf(total - reserve - lost, shares.volumes);
  add("unassigned", unassigned, data);
  for (const volume of volumes) {
    add("not-grown", volume.notGrown, data);
    add("volume-reserve", volume.reserved, data);
    add("file-system", volume.structures, data);
    add("root-reserve", volume.rootReserve, data);
    add("head-room", volume.headroom, data);
    add("used", volume.used, data);
    add("left", volume.left, data);
  }
  add("left", 0, data);
  return LEDGER_CAUSES.flatMap((cause) => {
    const sum = sums.get(cause);
    return sum ? [{ cause, bytes: sum.bytes, drives: [...sum.drives] }] : [];
  });
}
