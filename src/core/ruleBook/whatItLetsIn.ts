import { formatBytes } from "../bytes/formatBytes";
import type { BoxRules } from "../document/plan";
import { leastToJoin } from "../drives/checks/joining";
import { counted } from "../words/counted";
import { entry } from "./ruleEntry";

// What a box lets into one group.

const MIXING = [
  ["fine", "Yes"],
  ["note", "Yes, and tell me"],
  ["warn", "Better not"],
  ["block", "No"],
] as const satisfies readonly (readonly [BoxRules["mixedMedia"], string])[];

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
  "How small a drive may join?",
  "Decides which drives you can add or use as replacements.",
  [
    ["as-smallest-member", "As the smallest member"],
    ["as-largest-member", "As the largest member"],
    ["up-to-parity", "Any, up to the parity drive"],
    ["any-size", "Any size"],
  ],
  ({ rules, pool, members, family }) => {
    if (rules.joining === "any-size") return `A drive of any size may join ${pool.name}.`;
    if (rules.joining === "up-to-parity") {
      const most = Math.max(...members.map((drive) => drive.bytes));
      return `A drive of up to ${formatBytes(most, family)} may join ${pool.name} as a data drive.`;
    }
    return `A drive needs at least ${formatBytes(leastToJoin(members, rules), family)} to join ${pool.name}.`;
  },
);

export const hotSpares = entry(
  "hotSpares",
  "prediction",
  "Does it know hot spares?",
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
