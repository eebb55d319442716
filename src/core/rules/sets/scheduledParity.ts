import type { RuleSet } from "../ruleSet";

export const scheduledParity: RuleSet = {
  id: "scheduled-parity",
  name: "Scheduled-parity box",
  description:
    "Every drive keeps its own file system; parity is brought up to date by a scheduled sync. What came after the last sync is not protected.",
  rules: {
    layouts: ["parity-drive-1", "parity-drive-2", "single"],
    minimumDrives: { "parity-drive-1": 2, "parity-drive-2": 3 },
    systemReserveBytes: 0,
    rightSizeShare: 0,
    arrayFormat: "plain",
    mixedMedia: "fine",
    mixedBuses: "fine",
    mixedSectors: "fine",
    usbMembers: "warn",
    sizesShown: "binary",
    poolReserveShare: 0,
    widening: "several-drives",
    levelChanges: "one-at-a-time",
    joining: "up-to-parity",
    replacing: "pull-first",
    claiming: "per-drive",
    growing: "by-hand",
    shrinkVolumes: false,
    swapping: "power-off",
    system: "own-drive",
    hotSpares: "none",
    parityWrites: "by-schedule",
    rebuilding: "used-only",
  },
};
