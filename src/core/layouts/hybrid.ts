import { fitArray } from "../bands/arrayFormat";
import type { Band, Scheme } from "../bands/band";
import type { Bytes } from "../bytes/bytes";
import type { LayoutId } from "../document/plan";
import type { Room } from "../drives/room";
import { requireRooms, type Layout } from "./layout";
import { unless, type LevelPath } from "./levelPath";

/** The scheme of a slice that `count` drives reach, or null where the slice cannot be protected and stays unused. */
function schemeOfSlice(tolerance: 1 | 2, count: number): Scheme | null {
  if (count >= tolerance + 2) return { kind: "parity", parity: tolerance };
  return count === tolerance + 1 ? { kind: "mirror" } : null;
}

/** Cuts the drives level at each distinct size and lays one band over every slice that can be protected. */
function layOutSlices(tolerance: 1 | 2, rooms: readonly Room[], arrayFormat: "plain" | "linux-raid"): Band[] {
  const levels = [...new Set(rooms.map((room) => room.length))].filter((level) => level > 0).sort((a, b) => a - b);
  const bands: Band[] = [];
  let floor: Bytes = 0;
  for (const level of levels) {
    const reaching = rooms.filter((room) => room.length >= level);
    const scheme = schemeOfSlice(tolerance, reaching.length);
    if (scheme) {
      const { metadata, length } = fitArray(
        arrayFormat,
        reaching.map(() => level - floor),
        scheme,
      );
      const from = floor + metadata;
      if (length > 0)
        bands.push({
          scheme,
          metadata,
          members: reaching.map((room) => ({ drive: room.drive, offset: room.systemReserve + from, length })),
        });
    }
    floor = level;
  }
  return bands;
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
    cutsAtSizes: true,
    splits: true,
    layOut(rooms, setting) {
      requireRooms(layout, rooms);
      return layOutSlices(tolerance, rooms, setting.arrayFormat);
    },
  };
  return layout;
}

/** Bands at each distinct size. Usable Σ s − sn, tolerance 1. */
export const hybridOne = hybridLayout(
  1,
  "hybrid-1",
  "hybrid, one drive may fail",
  "Hybrid 1",
  "Drives of mixed sizes are cut level into bands, each with single parity or a mirror. Only the top of one largest drive can stay idle.",
  [{ to: "hybrid-2", refuses: ({ leaving }) => unless(leaving === 0, "No drive can leave with it.") }],
);

/** Bands at each distinct size. Usable Σ s − sn − s(n−1), tolerance 2. */
export const hybridTwo = hybridLayout(
  2,
  "hybrid-2",
  "hybrid, two drives may fail",
  "Hybrid 2",
  "Drives of mixed sizes are cut level into bands, each with double parity or three copies. Only the tops of the two largest drives can stay idle.",
  [],
);
