import { requireRooms, type Layout } from "./layout";
import { unless } from "./levelPath";
import { wholeDriveBand } from "./wholeDriveBand";

/** Striped mirrors (RAID 10). Usable n · s1 / 2, tolerance 1. Pairs are made by size, or of neighbours as named. */
export const stripedMirrors: Layout = {
  id: "raid10",
  name: "striped mirrors",
  shortName: "RAID 10",
  summary:
    "Every piece of data is on two drives, in pairs or, with an odd number, on neighbours. Every drive counts " +
    "as large as the smallest.",
  minimumDrives: 2,
  usualDrives: 4,
  multiple: 2,
  stripe: () => ({ data: "rest", copies: 2, parity: 0 }),
  nominalTolerance: () => 1,
  kernelLevel: "raid10",
  widening: "rewrites",
  becomes: [
    {
      to: "raid0",
      linuxOnly: true,
      refuses: ({ drives, joining, leaving, places }) =>
        unless(
          drives % 2 === 0 && joining === 0 && leaving === drives / 2,
          "A stripe keeps one drive of each pair: say which leave.",
        ) ??
        unless(
          places === undefined || new Set(places.map((place) => Math.floor(place / 2))).size === leaving,
          "One drive of each pair must stay: where both of a pair leave, what was on them is lost.",
        ),
    },
  ],
  chooses: "pairs",
  countsSmallest: true,
  keepsArrays: true,
  layOut(rooms, setting) {
    requireRooms(stripedMirrors, rooms);
    // The kernel's driver pairs neighbours in the order in which they are named; other boxes pair by size.
    const asNamed =
      (setting.options?.pairs ?? (setting.arrayFormat === "linux-raid" ? "as-named" : "by-size")) === "as-named";
    const ordered = asNamed ? rooms : [...rooms].sort((a, b) => a.length - b.length);
    return wholeDriveBand(ordered, { kind: "striped-mirrors" }, setting);
  },
};
