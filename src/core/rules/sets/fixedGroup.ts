import type { RuleSet } from "../ruleSet";

export const fixedGroup: RuleSet = {
  id: "fixed-group",
  name: "Fixed-group box",
  description:
    "Groups keep the number of drives that they were made of. The pool grows by a further group, or when all drives of a group have been replaced by larger ones. It keeps 1/32 of the pool.",
  rules: {
    layouts: ["raid1", "raid10", "raid5", "raid6", "triple-parity", "single", "raid0"],
    minimumDrives: { raid5: 3, raid6: 4, "triple-parity": 5 },
    systemReserveBytes: 0,
    rightSizeShare: 0,
    arrayFormat: "plain",
    mixedMedia: "warn",
    mixedBuses: "warn",
    mixedSectors: "block",
    usbMembers: "warn",
    sizesShown: "binary",
    poolReserveShare: 1 / 32,
    widening: "further-group",
    levelChanges: "none",
    joining: "as-smallest-member",
    replacing: "old-attached",
    claiming: "by-itself",
    growing: "by-itself",
    shrinkVolumes: false,
    swapping: "hot-swap",
    system: "own-drive",
    hotSpares: "shared",
    parityWrites: "at-once",
    rebuilding: "used-only",
  },
};
