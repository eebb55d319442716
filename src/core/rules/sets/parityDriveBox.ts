import type { RuleSet } from "../ruleSet";

export const parityDriveBox: RuleSet = {
  id: "parity-drive",
  name: "Parity-drive box",
  description:
    "Every drive keeps its own file system; one or two drives hold parity, written at once. No data drive may be larger than the parity drive.",
  rules: {
    layouts: ["parity-drive-1", "parity-drive-2", "single"],
    minimumDrives: { "parity-drive-1": 2, "parity-drive-2": 3 },
    systemReserveBytes: 0,
    rightSizeShare: 0,
    arrayFormat: "plain",
    mixedMedia: "warn",
    mixedBuses: "fine",
    mixedSectors: "warn",
    usbMembers: "warn",
    sizesShown: "decimal",
    poolReserveShare: 0,
    widening: "several-drives",
    levelChanges: "one-at-a-time",
    joining: "up-to-parity",
    replacing: "pull-first",
    claiming: "per-drive",
    growing: "by-itself",
    shrinkVolumes: false,
    swapping: "stop-pool",
    system: "own-drive",
    hotSpares: "none",
    parityWrites: "at-once",
    rebuilding: "whole-drive",
  },
};
