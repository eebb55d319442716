import type { Band } from "../bands/band";
import type { Bytes } from "../bytes/bytes";
import { MiB } from "../bytes/bytes";
import { floorTo } from "../bytes/floorTo";
import type { Room } from "../drives/room";

/** What is left of a drive's room between and above its bands. */
export interface Gaps {
  idle: Bytes;
  rounding: Bytes;
}

/**
 * What the bands leave unused of each drive's room. Each gap counts as idle in whole units; what remains of it, always
 * less than a unit, is rounding.
 *
 * @param unit in which the layout gives out space: 1 MiB, or a chunk
 * @returns by the drive's id, for every room
 * @example gapsOf([roomOf(fourTB), roomOf(eightTB)], mirrorOfBoth).get("d2")
 * // { idle: 4 000 776 716 288, rounding: 352 256 } on a box without reserve
 */
export function gapsOf(rooms: readonly Room[], bands: readonly Band[], unit: Bytes = MiB): Map<string, Gaps> {
  const taken = new Map<string, { from: Bytes; to: Bytes }[]>(rooms.map((room) => [room.drive, []]));
  for (const band of bands) {
    for (const member of band.members)
      taken.get(member.drive)?.push({ from: member.offset - band.metadata, to: member.offset + member.length });
  }
  return new Map(rooms.map((room) => [room.drive, gapsBetween(room, taken.get(room.drive) ?? [], unit)]));
}

function gapsBetween(room: Room, taken: { from: Bytes; to: Bytes }[], unit: Bytes): Gaps {
  const end = room.systemReserve + room.between;
  let at = room.systemReserve;
  let idle = 0;
  let rounding = 0;
  for (const { from, to } of [...taken.sort((a, b) => a.from - b.from), { from: end, to: end }]) {
    const whole = floorTo(from - at, unit);
    idle += whole;
    rounding += from - at - whole;
    at = to;
  }
  return { idle, rounding };
}
