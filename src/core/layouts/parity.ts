import { requireRooms, type Layout } from "./layout";
import { unless, type LevelPath } from "./levelPath";
import { wholeDriveBand } from "./wholeDriveBand";

/** What sets the layouts of this family apart, beside how many blocks of parity a stripe has. */
type Own = Pick<Layout, "id" | "name" | "shortName" | "becomes" | "several" | "kernelLevel">;

function parityLayout(parity: 1 | 2 | 3, worth: string, own: Own): Layout {
  const layout: Layout = {
    ...own,
    summary:
      `Data and parity take turns over all drives; parity takes ${worth}. Every drive counts as large as the ` +
      "smallest.",
    minimumDrives: parity + 1,
    usualDrives: parity + 2,
    stripe: () => ({ data: "rest", copies: 1, parity }),
    nominalTolerance: () => parity,
    widening: "rewrites",
    levelTakes: 1,
    ...(parity > 1 ? { rebuildsTogether: true as const } : {}),
    countsSmallest: true,
    keepsArrays: true,
    splits: true,
    layOut(rooms, setting) {
      requireRooms(layout, rooms);
      return wholeDriveBand(rooms, { kind: "parity", parity }, setting);
    },
  };
  return layout;
}

const moreParity = (to: LevelPath["to"], reason: string): LevelPath => ({
  to,
  rung: true,
  refuses: ({ drives, joining, leaving }) =>
    unless(drives > 2, "Single parity of two drives has no way there: it must have three first. Widen it.") ??
    unless(joining >= 1 && leaving === 0, reason),
});

const oneFewer = (to: LevelPath["to"], reason: string): LevelPath => ({
  to,
  linuxOnly: true,
  refuses: ({ joining, leaving }) => unless(joining === 0 && leaving === 1, reason),
});

/** Parity over one band. Usable (n − p) · s1, tolerance p. */
export const singleParity = parityLayout(1, "one drive's worth", {
  id: "raid5",
  name: "single parity",
  shortName: "RAID 5",
  kernelLevel: "raid5",
  several: { name: "RAID 50" },
  becomes: [
    {
      ...moreParity("raid6", "Double parity needs a drive more: on the same drives it is refused."),
      failedInterrupted: true,
    },
    oneFewer("raid0", "A stripe takes one drive fewer: say which leaves."),
    {
      to: "raid1",
      linuxOnly: true,
      refuses: ({ drives, joining, leaving }) =>
        unless(drives === 2 && joining + leaving === 0, "Only single parity of two drives becomes a mirror."),
    },
  ],
});

export const doubleParity = parityLayout(2, "two drives' worth", {
  id: "raid6",
  name: "double parity",
  shortName: "RAID 6",
  kernelLevel: "raid6",
  several: { name: "RAID 60" },
  becomes: [
    moreParity("triple-parity", "Triple parity needs a drive more."),
    oneFewer("raid5", "Single parity takes one drive fewer: say which leaves."),
  ],
});

export const tripleParity = parityLayout(3, "three drives' worth", {
  id: "triple-parity",
  name: "triple parity",
  shortName: "Triple parity",
  becomes: [],
});
