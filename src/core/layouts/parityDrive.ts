import type { Band } from "../bands/band";
import { MiB } from "../bytes/bytes";
import { floorTo } from "../bytes/floorTo";
import type { LayoutId } from "../document/plan";
import type { Room } from "../drives/room";
import { requireRooms, type Layout } from "./layout";
import { unless, type LevelPath } from "./levelPath";

/**
 * The drives that hold nothing but parity: those that are named, and for any that is not, the largest of the others, of
 * equal ones the later named. A group that is made has its parity drives named, so that they are never picked anew.
 *
 * @param named ids, of which those that are not among the rooms are passed over
 * @example parityDrivesOf([fourTB, eightTB], 1, []) // ["d2"]
 */
export function parityDrivesOf(
  rooms: readonly Pick<Room, "drive" | "length">[],
  parity: number,
  named: readonly string[] = [],
): string[] {
  const chosen = named.filter((id) => rooms.some((room) => room.drive === id)).slice(0, parity);
  const others = rooms
    .map((room, i) => ({ room, i }))
    .filter(({ room }) => !chosen.includes(room.drive))
    .sort((a, b) => b.room.length - a.room.length || b.i - a.i);
  return [...chosen, ...others.slice(0, parity - chosen.length).map(({ room }) => room.drive)];
}

/**
 * The data drives that are larger than the smallest parity drive, which cannot protect all of them.
 *
 * @returns their ids, and the smallest parity drive's; none where nothing is dedicated to parity
 * @example beyondParity([fourTB, eightTB, twelveTB], 1, ["d2"]) // { smallest: "d2", larger: ["d3"] }
 */
export function beyondParity(
  rooms: readonly Pick<Room, "drive" | "length">[],
  parity: number,
  named: readonly string[] = [],
): { smallest: string | null; larger: string[] } {
  const ids = parityDrivesOf(rooms, parity, named);
  const [least] = rooms.filter((room) => ids.includes(room.drive)).sort((a, b) => a.length - b.length);
  if (!least) return { smallest: null, larger: [] };
  const larger = rooms.filter((room) => !ids.includes(room.drive) && room.length > least.length);
  return { smallest: least.drive, larger: larger.map((room) => room.drive) };
}

/**
 * Independent drives with `parity` parity drives: one band for each slice between two sizes of data drives, over the
 * data drives that reach it and the parity drives. A data drive counts no further than the smallest parity drive.
 */
function layOutWithParityDrives(rooms: readonly Room[], parity: 1 | 2, named: readonly string[]): Band[] {
  const ids = parityDrivesOf(rooms, parity, named);
  const parityRooms = rooms.filter((room) => ids.includes(room.drive));
  const most = Math.min(...parityRooms.map((room) => room.length));
  const dataRooms = rooms
    .filter((room) => !ids.includes(room.drive))
    .map((room) => (room.length > most ? { ...room, length: most } : room));
  const levels = [...new Set(dataRooms.map((room) => floorTo(room.length, MiB)))]
    .filter((level) => level > 0)
    .sort((a, b) => a - b);
  let floor = 0;
  return levels.map((level) => {
    const from = floor;
    floor = level;
    const members = [...dataRooms.filter((room) => room.length >= level), ...parityRooms];
    return {
      scheme: { kind: "dedicated-parity", parity },
      metadata: 0,
      independent: true,
      members: members.map((room) => ({ drive: room.drive, offset: room.systemReserve + from, length: level - from })),
    };
  });
}

function parityDriveLayout(
  parity: 1 | 2,
  id: LayoutId,
  name: string,
  shortName: string,
  which: string,
  becomes: readonly LevelPath[],
): Layout {
  const layout: Layout = {
    id,
    name,
    shortName,
    summary:
      `Every data drive keeps its own file system; ${which} for parity. If more fail than that, only what was on ` +
      "the failed drives is lost.",
    minimumDrives: parity + 1,
    usualDrives: parity + 1,
    stripe: () => ({ data: "rest", copies: 1, parity }),
    nominalTolerance: () => parity,
    widening: "joins",
    becomes,
    independent: true,
    dedicatedParity: parity,
    rebuildsTogether: true,
    chooses: "parity-drives",
    canLoseOne: () => true,
    ...(parity === 2 ? { levelTakes: 1 } : {}),
    layOut(rooms, setting) {
      requireRooms(layout, rooms);
      return layOutWithParityDrives(rooms, parity, setting.options?.parityDrives ?? []);
    },
  };
  return layout;
}

/** Usable Σ s − sn, tolerance 1. */
export const oneParityDrive = parityDriveLayout(
  1,
  "parity-drive-1",
  "one parity drive",
  "Parity drive",
  "the largest is",
  [
    {
      to: "parity-drive-2",
      refuses: ({ joining, leaving }) =>
        unless(joining === 1 && leaving === 0, "The second parity drive is a drive more."),
    },
  ],
);

/** Usable Σ s − sn − s(n−1), tolerance 2. */
export const twoParityDrives = parityDriveLayout(
  2,
  "parity-drive-2",
  "two parity drives",
  "2 parity drives",
  "the two largest are",
  [],
);
