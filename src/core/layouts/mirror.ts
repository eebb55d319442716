import { requireRooms, type Layout } from "./layout";
import { unless } from "./levelPath";
import { wholeDriveBand } from "./wholeDriveBand";

/** Mirrors: every drive is a full copy, as large as the smallest. Usable s1, tolerance n − 1. */
export const mirror: Layout = {
  id: "raid1",
  name: "mirror",
  shortName: "RAID 1",
  summary: "Every drive holds a full copy. As large as the smallest drive.",
  minimumDrives: 2,
  usualDrives: 2,
  stripe: () => ({ data: 1, copies: "all", parity: 0 }),
  nominalTolerance: () => 1,
  kernelLevel: "raid1",
  widening: "copies",
  becomes: [
    {
      to: "raid5",
      rung: true,
      refuses: ({ drives, leaving }) =>
        unless(
          drives === 2 && leaving === 0,
          drives > 2
            ? "A mirror of more than two is refused: bring it to two drives first."
            : "Only a mirror of two becomes single parity.",
        ),
    },
  ],
  countsSmallest: true,
  keepsArrays: true,
  splits: true,
  landing: true,
  several: { name: "mirrored pairs", of: 2 },
  canLoseOne: (drives) => drives > 2,
  layOut(rooms, setting) {
    requireRooms(mirror, rooms);
    return wholeDriveBand(rooms, { kind: "mirror" }, setting);
  },
};
