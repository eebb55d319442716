import { formatBytes } from "../bytes/formatBytes";
import type { BoxRules } from "../document/plan";
import { leastToJoin } from "../drives/checks/joining";
import { rulesForJoining } from "../layouts/joins";
import { layoutOf } from "../layouts/registry";
import { counted } from "../words/counted";
import { entry } from "./ruleEntry";

// What a box lets into one group.

const MIXING = [
  ["fine", "Yes"],
  ["note", "Yes, and tell me"],
  ["warn", "Better not"],
  ["block", "No"],
] as const satisfies readonly (readonly [BoxRules["mixedMedia"], string])[];

export const mostDrives = entry(
  "mostDrives",
  "prediction",
  "How many drives does it take at most?",
  "Where nothing is said, as many as it has bays.",
  [
    [null, "As many as it has bays"],
    [2, "Two"],
    [4, "Four"],
  ],
  ({ rules, members }) =>
    rules.mostDrives === null
      ? null
      : `${counted(rules.mostDrives, "drive")} at most; the plan's first group has ${members.length}.`,
  { unit: "drives", asValue: 1, least: 1, most: 24, whole: true },
);

export const mixedMedia = entry("mixedMedia", "prediction", "Hard disks together with flash?", "", MIXING);

export const mixedBuses = entry("mixedBuses", "prediction", "Different interfaces?", "SATA together with SAS.", MIXING);

export const mixedSectors = entry(
  "mixedSectors",
  "prediction",
  "Different logical sector sizes?",
  "512 bytes together with 4096.",
  MIXING,
);

export const usbMembers = entry("usbMembers", "prediction", "Drives on USB?", "", MIXING);

export const joining = entry(
  "joining",
  "steps",
  "How large must a drive be to be added?",
  "Decides which drives you can add.",
  [
    ["as-smallest-member", "As the smallest drive of the group"],
    ["as-largest-member", "As the largest drive of the group, in hybrids"],
    ["up-to-parity", "Any, up to the parity drive"],
    ["any-size", "Any size"],
  ],
  ({ rules, pool, group, members, family }) => {
    if (rules.joining === "any-size" || layoutOf(group.layout).joinsAnySize)
      return `A drive of any size may join ${pool.name}.`;
    if (rules.joining === "up-to-parity") {
      const most = Math.max(...members.map((drive) => drive.bytes));
      return `A drive of up to ${formatBytes(most, family)} may join ${pool.name} as a data drive.`;
    }
    const least = leastToJoin(members, rulesForJoining(layoutOf(group.layout), rules));
    return `A drive needs at least ${formatBytes(least, family)} to join ${pool.name}.`;
  },
);

export const hotSpares = entry(
  "hotSpares",
  "prediction",
  "Does it use hot spares (drives that wait and take over)?",
  "A spare takes over by itself when a drive fails.",
  [
    ["none", "No"],
    ["per-group", "For each group"],
    ["shared", "Shared by all"],
  ],
  ({ pool }) => {
    const spares = pool.spares.length + pool.groups.reduce((sum, each) => sum + (each.spares?.length ?? 0), 0);
    return `${pool.name} has ${spares === 0 ? "no spare" : counted(spares, "spare")}.`;
  },
);
