import { GiB } from "../../bytes/bytes";
import type { RuleSet } from "../ruleSet";

export const hybridBox: RuleSet = {
  id: "hybrid-box",
  name: "Hybrid box",
  description:
    "A box that makes use of drives of mixed sizes, cut level into bands. It keeps 10 GiB of every drive for itself.",
  rules: {
    layouts: ["raid1", "raid10", "raid5", "raid6", "hybrid-1", "hybrid-2", "single", "span", "raid0"],
    minimumDrives: { raid5: 3, raid6: 4, "hybrid-1": 2, "hybrid-2": 4 },
    systemReserveBytes: 10 * GiB,
    rightSizeShare: 0,
    arrayFormat: "plain",
    mixedMedia: "block",
    mixedBuses: "warn",
    mixedSectors: "block",
    usbMembers: "block",
    sizesShown: "binary-printed-as-decimal",
    poolReserveShare: 0,
    widening: "one-drive",
    levelChanges: "one-at-a-time",
    joining: "as-largest-member",
    replacing: "pull-first",
    claiming: "by-itself",
    growing: "by-hand",
    shrinkVolumes: false,
    swapping: "hot-swap",
    swapMinutes: 15,
    system: "on-all-drives",
    hotSpares: "shared",
    parityWrites: "at-once",
    rebuilding: "whole-drive",
    firstFill: "at-once",
  },
};
