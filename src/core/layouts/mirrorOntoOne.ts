import { fitArray } from "../bands/arrayFormat";
import type { Band } from "../bands/band";
import { requireRooms, type Layout } from "./layout";

/**
 * Small drives laid end to end along one large drive, each mirrored onto its own part of it: a mirror out of drives of
 * unequal sizes. Every small drive keeps a file system of its own. Usable min(Σ s − sn, sn), tolerance 1.
 */
export const mirrorOntoOne: Layout = {
  id: "mirror-onto-one",
  name: "mirror onto one large drive",
  shortName: "Mirror onto one",
  summary:
    "Each smaller drive is mirrored onto its own part of the largest, and keeps its own file system. It " +
    "survives the loss of any one drive.",
  minimumDrives: 3,
  usualDrives: 3,
  stripe: () => ({ data: 1, copies: 2, parity: 0 }),
  nominalTolerance: () => 1,
  // Its drives have a part each: one more would have to be laid behind them by hand.
  widening: "never",
  becomes: [],
  independent: true,
  liesEndToEnd: true,
  layOut(rooms) {
    requireRooms(mirrorOntoOne, rooms);
    const large = rooms.reduce((most, room) => (room.length > most.length ? room : most));
    const bands: Band[] = [];
    let floor = 0;
    for (const room of rooms) {
      if (room === large) continue;
      const reach = Math.min(room.length, large.length - floor);
      // Plain partitions are mirrored, whose file systems stay where they are: no array's metadata lies before them.
      const { metadata, length } = fitArray("plain", [reach, reach], { kind: "mirror" });
      if (length > 0)
        bands.push({
          scheme: { kind: "mirror" },
          metadata,
          independent: true,
          members: [
            { drive: room.drive, offset: room.systemReserve + metadata, length },
            { drive: large.drive, offset: large.systemReserve + floor + metadata, length },
          ],
        });
      floor += Math.max(0, reach);
    }
    return bands;
  },
};
