import { fitUnequal } from "../bands/arrayFormat";
import type { Band } from "../bands/band";
import type { Room } from "../drives/room";
import { requireRooms, type Layout, type LayoutSetting } from "./layout";
import { unless } from "./levelPath";
import { wholeDriveBand } from "./wholeDriveBand";

/** Unequal drives striped in zones, as the kernel's driver does: each zone over the drives that reach it. */
function zones(rooms: readonly Room[], setting: LayoutSetting): Band[] {
  const { metadata, lengths } = fitUnequal(
    setting.arrayFormat,
    rooms.map((room) => room.between),
    "stripe",
  );
  const levels = [...new Set(lengths)].filter((length) => length > 0).sort((a, b) => a - b);
  let floor = 0;
  return levels.map((level) => {
    const reaching = rooms.filter((_, i) => (lengths[i] ?? 0) >= level);
    const from = floor;
    floor = level;
    return {
      scheme: reaching.length === 1 ? { kind: "single" } : { kind: "stripe" },
      metadata: from === 0 ? metadata : 0,
      members: reaching.map((room) => ({
        drive: room.drive,
        offset: room.systemReserve + metadata + from,
        length: level - from,
      })),
    };
  });
}

const UNEQUAL = "A stripe over drives of different sizes cannot be changed.";

/** Stripe (RAID 0). Usable n · s1, on a Linux host Σ s in zones; tolerance 0. */
export const stripe: Layout = {
  id: "raid0",
  name: "stripe",
  shortName: "RAID 0",
  summary: "Data is striped over all drives for speed. The failure of any one loses everything.",
  minimumDrives: 2,
  usualDrives: 2,
  stripe: () => ({ data: "rest", copies: 1, parity: 0 }),
  nominalTolerance: () => 0,
  kernelLevel: "raid0",
  widening: "rewrites",
  becomes: [
    {
      to: "raid5",
      linuxOnly: true,
      refuses: ({ joining, leaving, equal }) =>
        unless(equal && joining >= 1 && leaving === 0, equal ? "Single parity needs a drive more." : UNEQUAL),
    },
    {
      to: "raid10",
      linuxOnly: true,
      refuses: ({ drives, joining, leaving, equal }) =>
        unless(
          equal && joining === drives && leaving === 0,
          equal ? "Striped mirrors need as many drives again." : UNEQUAL,
        ),
      // Each old drive gets a new one as its partner.
      arranges: (members, joining) => members.flatMap((drive, i) => [drive, ...joining.slice(i, i + 1)]),
    },
  ],
  zonedWhenUnequal: true,
  takesNoSpare: true,
  keepsArrays: true,
  layOut(rooms, setting) {
    requireRooms(stripe, rooms);
    // What has been another array is as high on every drive as that was.
    return setting.arrayFormat === "linux-raid" && !setting.kept?.length
      ? zones(rooms, setting)
      : wholeDriveBand(rooms, { kind: "stripe" }, setting);
  },
};
