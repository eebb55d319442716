import { GiB } from "../../bytes/bytes";
import type { RuleSet } from "../ruleSet";

export const desktopMirror: RuleSet = {
  id: "desktop-mirror",
  name: "Two-drive desktop mirror",
  description:
    "A small box with two bays that mirrors one drive onto the other, or uses them separately or end to end. The power is switched off to change a drive.",
  rules: {
    layouts: ["raid1", "single", "span", "raid0"],
    minimumDrives: {},
    systemReserveBytes: 2 * GiB,
    rightSizeShare: 0,
    arrayFormat: "plain",
    mixedMedia: "block",
    mixedBuses: "block",
    mixedSectors: "block",
    usbMembers: "block",
    sizesShown: "decimal",
    poolReserveShare: 0,
    widening: "further-group",
    levelChanges: "none",
    joining: "as-smallest-member",
    replacing: "pull-first",
    claiming: "whole-group",
    growing: "by-itself",
    shrinkVolumes: false,
    swapping: "power-off",
    swapMinutes: 15,
    system: "on-all-drives",
    hotSpares: "none",
    parityWrites: "at-once",
    rebuilding: "whole-drive",
    firstFill: "at-once",
  },
};
