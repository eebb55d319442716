import type { Band } from "../bands/band";
import type { Bytes } from "../bytes/bytes";
import { MiB } from "../bytes/bytes";
import { floorTo } from "../bytes/floorTo";
import type { Room } from "../drives/room";

/**
 * What the bands leave unused of one drive's room. Each gap counts as idle in whole MiB; what remains of it, always
 * less than 1 MiB, is rounding.
 *
 * @param bands all bands of the drive's group, whether the drive is in them or not
 * @example gapsOf(roomOf(eightTB), mirrorWithFourTB) // { idle: 4 000 776 716 288, rounding: 352 256 } on a box without reserve
 */
export function gapsOf(room: Room, bands: readonly Band[]): { idle: Bytes; rounding: Bytes } {
  const taken = bands
    .flatMap((band) => band.members.filter((member) => member.drive === room.drive).map((member) => ({ from: member.offset - band.metadata, to: member.offset + member.length })))
    .sort((a, b) => a.from - b.from);
  let at = room.systemReserve;
  let idle = 0;
  let rounding = 0;
  const end = room.systemReserve + room.between;
  for (const { from, to } of [...taken, { from: end, to: end }]) {
    const whole = floorTo(from - at, MiB);
    idle += whole;
    rounding += from - at - whole;
    at = to;
  }
  return { idle, rounding };
}
