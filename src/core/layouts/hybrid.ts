import { fitArray } from "../bands/arrayFormat";
import type { Band, Scheme } from "../bands/band";
import type { Bytes } from "../bytes/bytes";
import type { KeptArray, LayoutId } from "../document/plan";
import type { Room } from "../drives/room";
import { endOfKept, fitKept } from "./keptArrays";
import { requireRooms, type Layout, type LayoutSetting } from "./layout";
import { unless, type LevelPath } from "./levelPath";

/** The scheme of a slice that `count` drives reach, or null where the slice cannot be protected and stays unused. */
function schemeOfSlice(tolerance: 1 | 2, count: number): Scheme | null {
  if (count >= tolerance + 2) return { kind: "parity", parity: tolerance };
  return count === tolerance + 1 ? { kind: "mirror" } : null;
}

/** A slice across the drives, from one height to another, in bytes above their reserves. */
interface Slice {
  from: Bytes;
  to: Bytes;
  /** What lies in it already. */
  known?: KeptArray;
}

/** The slices of a hybrid from the bottom: those that it has stay, and above them drives are cut at each size. */
function slicesOf(rooms: readonly Room[], kept: readonly KeptArray[]): Slice[] {
  const standing = kept.map((known): Slice => ({
    from: known.from,
    to: endOfKept(known),
    known,
  }));
  const top = Math.max(0, ...standing.map(({ to }) => to));
  const levels = [...new Set(rooms.map((room) => room.length))].filter((level) => level > top).sort((a, b) => a - b);
  return [...standing, ...levels.map((to, i) => ({ from: levels[i - 1] ?? top, to }))];
}

/** Cuts the drives level and lays one band over every slice that can be protected. */
function layOutSlices(tolerance: 1 | 2, rooms: readonly Room[], { arrayFormat, kept = [] }: LayoutSetting): Band[] {
  return slicesOf(rooms, kept).flatMap(({ from, to, known }): Band[] => {
    const reaching = rooms.filter((room) => room.length >= to);
    const scheme = schemeOfSlice(tolerance, reaching.length);
    if (!scheme) return [];
    const sizes = reaching.map(() => to - from);
    const { metadata, length } = known ? fitKept(known, sizes) : fitArray(arrayFormat, sizes, scheme);
    if (length <= 0) return [];
    const members = reaching.map((room) => ({
      drive: room.drive,
      offset: room.systemReserve + from + metadata,
      length,
    }));
    return [{ scheme, metadata, members }];
  });
}

function hybridLayout(
  tolerance: 1 | 2,
  id: LayoutId,
  name: string,
  shortName: string,
  summary: string,
  becomes: readonly LevelPath[],
): Layout {
  const layout: Layout = {
    id,
    name,
    shortName,
    summary,
    minimumDrives: tolerance + 1,
    usualDrives: tolerance + 1,
    stripe: () => ({ data: "rest", copies: 1, parity: tolerance }),
    nominalTolerance: () => tolerance,
    widening: "rewrites",
    becomes,
    ...(tolerance > 1 ? { rebuildsTogether: true as const } : {}),
    cutsAtSizes: true,
    keepsArrays: true,
    splits: true,
    layOut(rooms, setting) {
      requireRooms(layout, rooms);
      return layOutSlices(tolerance, rooms, setting);
    },
  };
  return layout;
}

/** Bands at each distinct size. Usable Σ s − sn, tolerance 1. */
export const hybridOne = hybridLayout(
  1,
  "hybrid-1",
  "hybrid, one drive safe",
  "Hybrid (one)",
  "Drives of mixed sizes are cut level into bands, each with single parity or a mirror. Only the top of one " +
    "largest drive can stay unused.",
  [{ to: "hybrid-2", refuses: ({ leaving }) => unless(leaving === 0, "No drive can leave with it.") }],
);

/** Bands at each distinct size. Usable Σ s − sn − s(n−1), tolerance 2. */
export const hybridTwo = hybridLayout(
  2,
  "hybrid-2",
  "hybrid, two drives safe",
  "Hybrid (two)",
  "Drives of mixed sizes are cut level into bands, each with double parity or three copies. Only the tops of " +
    "the two largest drives can stay unused.",
  [],
);
