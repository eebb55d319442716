import type { RuleSet } from "../boxRules";

export const classicRaid: RuleSet = {
  id: "classic-raid",
  name: "Classic RAID box",
  description: "A box with the plain RAID levels. Every drive of a group counts as large as the smallest. Nothing is kept for the system.",
  rules: {
    layouts: ["raid1", "raid5", "raid6"],
    minimumDrives: { raid5: 3, raid6: 4 },
    systemReserveBytes: 0,
    rightSizeShare: 0,
    arrayFormat: "plain",
    mixedMedia: "block",
    mixedBuses: "warn",
    mixedSectors: "block",
    usbMembers: "block",
    sizesShown: "binary",
  },
};
