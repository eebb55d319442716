import type { Band } from "../bands/band";
import { contentsOf } from "../bands/contents";
import type { Bytes } from "../bytes/bytes";
import type { Room } from "../drives/room";
import { gapsOf } from "./gaps";

/** Why bytes of the drives are not there to be filled; the last one is what is. In the order of the ledger. */
export const LEDGER_CAUSES = [
  "system-reserve",
  "right-size-margin",
  "rounding",
  "idle",
  "spare",
  "copies",
  "parity",
  "metadata",
  "usable",
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
}

/**
 * Where every byte of a pool's drives went, in the order of `LEDGER_CAUSES`. The entries sum to the drives' bytes
 * exactly. Causes without a byte are left out, except `usable`, which is always last.
 *
 * @param groups the groups of the pool
 * @param spares rooms of its hot spares, which count whole
 * @example ledgerOf([{ rooms: roomsOf(4 TB, 8 TB), bands: mirrorBands }], [])
 * // idle 4 TB (the 8 TB drive), copies 4 TB (both), usable 4 TB (both)
 */
export function ledgerOf(groups: readonly LedgerGroup[], spares: readonly Room[]): LedgerEntry[] {
  const sums = new Map<LedgerCause, { bytes: Bytes; drives: Set<string> }>();
  const add = (cause: LedgerCause, bytes: Bytes, drives: readonly string[]) => {
    if (bytes === 0 && cause !== "usable") return;
    const sum = sums.get(cause) ?? { bytes: 0, drives: new Set<string>() };
    sum.bytes += bytes;
    drives.forEach((drive) => sum.drives.add(drive));
    sums.set(cause, sum);
  };

  for (const { rooms, bands } of groups) {
    for (const room of rooms) {
      const { idle, rounding } = gapsOf(room, bands);
      add("system-reserve", room.systemReserve, [room.drive]);
      add("right-size-margin", room.rightSizeMargin, [room.drive]);
      add("rounding", rounding, [room.drive]);
      add("idle", idle, [room.drive]);
    }
    for (const band of bands) {
      const drives = band.members.map((member) => member.drive);
      const { data, copies, parity } = contentsOf(band);
      add("copies", copies, drives);
      add("parity", parity, drives);
      add("metadata", band.metadata * band.members.length, drives);
      add("usable", data, drives);
    }
  }
  for (const room of spares) add("spare", room.bytes, [room.drive]);
  add("usable", 0, []);
  return LEDGER_CAUSES.flatMap((cause) => {
    const sum = sums.get(cause);
    return sum ? [{ cause, bytes: sum.bytes, drives: [...sum.drives] }] : [];
  });
}
