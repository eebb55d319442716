import { requireRooms, type Layout } from "./layout";
import { wholeDriveBand } from "./wholeDriveBand";
import type { LayoutId } from "../document/plan";

function parityLayout(parity: 1 | 2 | 3, id: LayoutId, name: string, shortName: string, worth: string): Layout {
  const layout: Layout = {
    id,
    name,
    shortName,
    summary: `Data and parity take turns over all drives; parity takes ${worth}. Every drive counts as large as the smallest.`,
    minimumDrives: parity + 1,
    usualDrives: parity + 2,
    countsSmallest: true,
    splits: true,
    layOut(rooms, setting) {
      requireRooms(layout, rooms);
      return wholeDriveBand(rooms, { kind: "parity", parity }, setting);
    },
  };
  return layout;
}

/** Parity over one band. Usable (n − p) · s1, tolerance p. */
export const singleParity = parityLayout(1, "raid5", "single parity", "RAID 5", "one drive's worth");
export const doubleParity = parityLayout(2, "raid6", "double parity", "RAID 6", "two drives' worth");
export const tripleParity = parityLayout(3, "triple-parity", "triple parity", "Triple parity", "three drives' worth");
