import type { Band } from "../bands/band";
import type { Bytes } from "../bytes/bytes";
import { floorTo } from "../bytes/floorTo";
import type { BoxRules, Drive, Group } from "../document/plan";
import { limitedRoom, roomOf, type Room } from "../drives/room";
import { CHUNK_BYTES } from "./chunks";
import { wrongCount } from "./problemsOfLayout";
import { layoutOf } from "./registry";
import { ownValue } from "../records/ownValue";

/** What of a group decides where its bands lie. */
export type LaidOut = Pick<Group, "layout" | "options" | "reach" | "filled" | "kept">;

/** The part of a room above what holds chunks already. */
function above(room: Room, filled: Bytes): Room {
  const taken = Math.min(room.length, filled);
  return {
    ...room,
    systemReserve: room.systemReserve + taken,
    between: room.between - taken,
    length: room.length - taken,
  };
}

/** The rooms of a group's drives, each as far up as it is taken in. */
export const roomsOfGroup = (group: Pick<Group, "reach">, drives: readonly Drive[], rules: BoxRules): Room[] =>
  drives.map((drive) => limitedRoom(roomOf(drive, rules), ownValue(group.reach, drive.id)));

/**
 * The bands of a group as it stands: on drives whose space has not all been claimed, as far up as each is taken in; in
 * a chunk pool that has not been balanced, over what is stored and over the free parts apart, since new chunks can only
 * go to these.
 *
 * @param drives the group's drives in its order
 * @returns none where the layout cannot be made of so many drives, or they have no room in common
 * @example layOutGroup({ layout: "raid5" }, threeOf4TB, rules) // one band
 */
export function layOutGroup(group: LaidOut, drives: readonly Drive[], rules: BoxRules): Band[] {
  const layout = layoutOf(group.layout);
  const options = group.options ?? {};
  if (wrongCount(layout, drives.length, rules, options)) return [];
  const setting = {
    arrayFormat: rules.arrayFormat,
    options,
    ...(layout.keepsArrays && group.kept ? { kept: group.kept } : {}),
  };
  const rooms = roomsOfGroup(group, drives, rules);
  const { filled } = group;
  if (!filled || !layout.chunked) return layout.layOut(rooms, setting);
  const filledOf = (room: Room) =>
    Math.min(floorTo(room.length, CHUNK_BYTES), floorTo(ownValue(filled, room.drive) ?? 0, CHUNK_BYTES));
  const stored = layout.layOut(
    rooms.map((room) => ({ ...room, between: filledOf(room), length: filledOf(room) })),
    setting,
  );
  return [
    ...stored,
    ...layout.layOut(
      rooms.map((room) => above(room, filledOf(room))),
      setting,
    ),
  ];
}
