import type { RuleSet } from "../ruleSet";

export const chunkCopies: RuleSet = {
  id: "chunk-copies",
  name: "Chunk-copies box",
  description:
    "Any drive at any time: data is kept in chunks of 1 GiB on several drives. After a new drive the pool grows at once, then the volume by hand.",
  rules: {
    layouts: ["copies-2", "copies-3", "chunk-parity", "single"],
    minimumDrives: {},
    systemReserveBytes: 0,
    rightSizeShare: 0,
    arrayFormat: "plain",
    mixedMedia: "warn",
    mixedBuses: "fine",
    mixedSectors: "fine",
    usbMembers: "warn",
    sizesShown: "binary",
    poolReserveShare: 0.005,
    widening: "several-drives",
    levelChanges: "in-one-go",
    joining: "any-size",
    replacing: "old-attached",
    claiming: "per-drive",
    growing: "by-hand",
    shrinkVolumes: true,
    swapping: "hot-swap",
    system: "own-drive",
    hotSpares: "none",
    parityWrites: "at-once",
    rebuilding: "used-only",
  },
};
