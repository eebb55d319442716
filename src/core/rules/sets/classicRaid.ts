import type { RuleSet } from "../ruleSet";

export const classicRaid: RuleSet = {
  id: "classic-raid",
  name: "Classic RAID box",
  description:
    "A box with the plain RAID levels. Every drive of a group counts as large as the smallest. Nothing is kept for the system.",
  rules: {
    layouts: ["raid1", "raid10", "raid5", "raid6", "single", "span", "raid0"],
    minimumDrives: { raid5: 3, raid6: 4 },
    systemReserveBytes: 0,
    rightSizeShare: 0,
    arrayFormat: "plain",
    mixedMedia: "block",
    mixedBuses: "warn",
    mixedSectors: "block",
    usbMembers: "block",
    sizesShown: "binary",
    poolReserveShare: 0,
    widening: "one-drive",
    levelChanges: "one-at-a-time",
    joining: "as-smallest-member",
    replacing: "pull-first",
    claiming: "whole-group",
    growing: "by-hand",
    shrinkVolumes: false,
    swapping: "hot-swap",
    system: "own-drive",
    hotSpares: "per-group",
    parityWrites: "at-once",
    rebuilding: "whole-drive",
  },
};
