import { fitArray } from "../bands/arrayFormat";
import type { Band, Scheme } from "../bands/band";
import type { Room } from "../drives/room";
import { fitKept } from "./keptArrays";
import type { LayoutSetting } from "./layout";

/**
 * One band over whole drives, as high as the smallest allows: what the classic layouts are.
 *
 * @returns the band, or nothing where the smallest drive has no room for it
 * @example wholeDriveBand([roomOf(d1), roomOf(d2)], { kind: "mirror" }, { arrayFormat: "plain" })
 */
export function wholeDriveBand(rooms: readonly Room[], scheme: Scheme, setting: LayoutSetting): Band[] {
  const slices = rooms.map((room) => room.between);
  const [kept] = setting.kept ?? [];
  const { metadata, length } = kept ? fitKept(kept, slices) : fitArray(setting.arrayFormat, slices, scheme);
  if (length === 0) return [];
  return [
    {
      scheme,
      metadata,
      members: rooms.map((room) => ({ drive: room.drive, offset: room.systemReserve + metadata, length })),
    },
  ];
}
