import { requireRooms, type Layout } from "./layout";
import { wholeDriveBand } from "./wholeDriveBand";

/** Mirrors: every drive is a full copy, as large as the smallest. Usable s1, tolerance n − 1. */
export const mirror: Layout = {
  id: "raid1",
  name: "mirror",
  shortName: "RAID 1",
  summary: "Every drive holds a full copy. As large as the smallest drive.",
  minimumDrives: 2,
  usualDrives: 2,
  countsSmallest: true,
  splits: true,
  layOut(rooms, setting) {
    requireRooms(mirror, rooms);
    return wholeDriveBand(rooms, { kind: "mirror" }, setting);
  },
};
