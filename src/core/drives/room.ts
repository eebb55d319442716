import type { Bytes } from "../bytes/bytes";
import { MiB } from "../bytes/bytes";
import { floorTo } from "../bytes/floorTo";
import type { BoxRules } from "../document/plan";

/** The part of one drive that a pool can use, and what was set aside for it. All in bytes, laid end to end. */
export interface Room {
  drive: string;
  /** The whole drive. */
  bytes: Bytes;
  /** Kept by the box for its own partitions, at the start of the drive. */
  systemReserve: Bytes;
  /** Left unused at the end, so that a slightly smaller replacement fits. */
  replacementMargin: Bytes;
  /** What is between them, not rounded. */
  between: Bytes;
  /** What a pool can use: `between` rounded down to 1 MiB. */
  length: Bytes;
}

/**
 * The room of a drive: `floorTo(bytes − systemReserve − replacementMargin, 1 MiB)`, never below 0. A drive that is
 * smaller than what is set aside has no room, and the reserve then takes all of it.
 *
 * @example roomOf({ id: "d1", bytes: 4_000_787_030_016 }, { systemReserveBytes: 0, replacementMarginShare: 0 }).length
 * // 4 000 786 153 472
 */
export function roomOf(
  drive: { id: string; bytes: Bytes },
  rules: Pick<BoxRules, "systemReserveBytes" | "replacementMarginShare">,
): Room {
  const systemReserve = Math.min(drive.bytes, rules.systemReserveBytes);
  const replacementMargin = Math.min(
    drive.bytes - systemReserve,
    Math.ceil(drive.bytes * rules.replacementMarginShare),
  );
  const between = drive.bytes - systemReserve - replacementMargin;
  return {
    drive: drive.id,
    bytes: drive.bytes,
    systemReserve,
    replacementMargin,
    between,
    length: floorTo(between, MiB),
  };
}

/**
 * The size of the smallest drive whose room is so long, in bytes.
 *
 * @param length in bytes
 * @example bytesForRoom(4_000_786_153_472, { systemReserveBytes: 0, replacementMarginShare: 0 }) // 4 000 786 153 472
 */
export function bytesForRoom(
  length: Bytes,
  rules: Pick<BoxRules, "systemReserveBytes" | "replacementMarginShare">,
): Bytes {
  let bytes = length + rules.systemReserveBytes;
  // The margin is a share of the drive, so what it takes grows with the drive.
  while (roomOf({ id: "", bytes }, rules).between < length) bytes += length - roomOf({ id: "", bytes }, rules).between;
  return bytes;
}

/**
 * A room of which only the lowest part is taken into a group: as far as the drive that was there before reached.
 *
 * @param reach in bytes, of what is between reserve and margin
 * @example limitedRoom(roomOf(eightTB, rules), roomOf(fourTB, rules).between).length // that of the 4 TB drive
 */
export function limitedRoom(room: Room, reach: Bytes | undefined): Room {
  if (reach === undefined || reach >= room.between) return room;
  return { ...room, between: reach, length: floorTo(reach, MiB) };
}
