import { inText } from "../layouts/inText";
import { fewestDrives } from "../layouts/problemsOfLayout";
import type { BoxRules } from "../document/plan";
import { layoutOf } from "../layouts/registry";
import { widenedAtOnce, widensByDrive } from "../layouts/widens";
import { predict } from "../prediction/predict";
import { lengthWords } from "../time/hoursWords";
import { counted, oneOrMany } from "../words/counted";
import { listOf } from "../words/listOf";
import { entry, freeWords, type RuleSite } from "./ruleEntry";

// How a box grows and repairs its pools.

const isLinux = ({ arrayFormat }: Pick<BoxRules, "arrayFormat">): boolean => arrayFormat === "linux-raid";

/** What several rules come to: how long the longest rebuild of the plan takes; null where nothing can be rebuilt. */
function longestRebuild({ plan }: RuleSite): string | null {
  const hours = predict(plan)
    .pools.flatMap((pool) => pool.groups.flatMap((group) => group.rebuilds))
    .flatMap((rebuild) => rebuild.hours?.expected ?? []);
  return hours.length === 0 ? null : `The longest rebuild takes ${lengthWords(Math.max(...hours))}.`;
}

export const widening = entry(
  "widening",
  "steps",
  "Can a group be widened?",
  "Matters when you add a drive.",
  [
    ["one-drive", "By one drive"],
    ["several-drives", "By several at once"],
    ["further-group", "No, only by another group"],
  ],
  ({ rules, pool, group, free }) => {
    const layout = layoutOf(group.layout);
    if (layout.widening === "never")
      return `${pool.name} cannot be widened: in its layout (${layout.name}) no drive can join.`;
    if (widensByDrive(layout, rules)) {
      const atOnce = widenedAtOnce(layout, rules);
      const takes =
        atOnce === Infinity ? "several drives at once" : `${oneOrMany(atOnce, "one drive", "drives")} at a time`;
      return `${pool.name} can take ${takes}; ${freeWords({ free })}.`;
    }
    const fewest = fewestDrives(layoutOf(group.layout), rules, group.options);
    return `${pool.name} grows by at least ${counted(fewest, "drive")} at once; ${freeWords({ free })}.`;
  },
);

export const levelChanges = entry(
  "levelChanges",
  "steps",
  "Can it change a mirror to RAID 5, and RAID 5 to RAID 6, keeping the data?",
  "",
  [
    ["none", "No"],
    ["one-at-a-time", "Yes, one change at a time"],
    ["in-one-go", "Yes, several in one go"],
  ],
  ({ rules, pool, group }) => {
    const layout = layoutOf(group.layout);
    const offered = layout.becomes.filter(
      ({ to, linuxOnly }) => rules.layouts.includes(to) && (!linuxOnly || isLinux(rules)),
    );
    if (rules.levelChanges === "none" || offered.length === 0)
      return `${pool.name} keeps its layout (${inText(layout)}), unless it is made again and restored from a backup.`;
    const names = listOf(offered.map(({ to }) => layoutOf(to).shortName));
    return rules.levelChanges === "one-at-a-time"
      ? `From ${inText(layout)}, ${names} can be reached in one step.`
      : `From ${inText(layout)}, ${names} and what can be reached from there, in one step.`;
  },
);

export const replacing = entry(
  "replacing",
  "steps",
  "How is a drive replaced?",
  "With the old drive still in its bay your protection stays during the copy; it takes a free bay.",
  [
    ["old-attached", "With the old one still in its bay"],
    ["pull-first", "By pulling it first"],
  ],
  ({ rules, pool, group, free }) => {
    const layout = layoutOf(group.layout);
    if (layout.nominalTolerance(group.options ?? {}) === 0 && (rules.replacing === "pull-first" || layout.takesNoSpare))
      return layout.independent
        ? `What is on a drive of ${pool.name} goes with it: copy it away before the drive is replaced.`
        : `${pool.name} is lost when a drive of it is pulled: back it up, make it again and restore it.`;
    if (rules.replacing === "pull-first") return `While a drive of ${pool.name} is replaced, the pool is degraded.`;
    if (free.length === 0) return "No bay is free, so a drive would still have to be pulled first.";
    return `For the new drive, ${freeWords({ free })}.`;
  },
);

export const claiming = entry(
  "claiming",
  "steps",
  "When can the extra space of larger drives be used?",
  "Forgetting this is a common reason why nothing grew.",
  [
    ["by-itself", "At once"],
    ["per-drive", "When you confirm each drive"],
    ["whole-group", "When you confirm once for all"],
  ],
  ({ rules, pool }) =>
    ({
      "by-itself": null,
      "per-drive": `After each larger drive in ${pool.name} its new space has to be taken into use.`,
      "whole-group": `After the last larger drive of ${pool.name} the new space of all has to be taken into use once.`,
    })[rules.claiming],
);

export const growing = entry(
  "growing",
  "steps",
  "Do the volume and the file system grow by themselves?",
  "",
  [
    ["by-itself", "Yes"],
    ["by-hand", "By hand"],
  ],
  ({ rules, pool }) => {
    if (rules.growing === "by-itself") return null;
    const count = pool.volumes.length;
    const volumes = count === 0 ? "its volumes have" : counted(count, "volume has", "volumes have");
    return `After ${pool.name} has grown, ${volumes} to be grown by hand, and then the file system.`;
  },
);

export const shrinkVolumes = entry("shrinkVolumes", "steps", "Can a volume be made smaller?", "", [
  [true, "Yes"],
  [false, "No"],
]);

export const swapping = entry(
  "swapping",
  "steps",
  "Can you swap a drive while the box runs?",
  "",
  [
    ["hot-swap", "Yes"],
    ["power-off", "Only switched off"],
    ["stop-pool", "Only with the pool stopped"],
  ],
  ({ rules, plan, pool }) =>
    ({
      "hot-swap": `A drive of ${plan.box.name} is changed while it runs.`,
      "power-off": `To change a drive, ${plan.box.name} is switched off.`,
      "stop-pool": `To change a drive, ${pool.name} is stopped.`,
    })[rules.swapping],
);

export const swapMinutes = entry(
  "swapMinutes",
  "steps",
  "For how long is it off, or its pool stopped, to change a drive?",
  "Only for the change itself: the new drive is filled while the box runs again.",
  [
    [5, "5 minutes"],
    [15, "15 minutes"],
    [30, "30 minutes"],
    [60, "60 minutes"],
  ],
  ({ rules, plan, pool }) =>
    ({
      "hot-swap": `Nothing is switched off: a drive of ${plan.box.name} is changed while it runs.`,
      "power-off": `Each change of a drive takes ${plan.box.name} away for about ${counted(rules.swapMinutes, "minute")}.`,
      "stop-pool": `Each change of a drive takes ${pool.name} away for about ${counted(rules.swapMinutes, "minute")}.`,
    })[rules.swapping],
  { unit: "minutes", most: 1440, asValue: 1 },
);

export const firstFill = entry(
  "firstFill",
  "prediction",
  "What does it fill when a group is made?",
  "Until a first fill has ended, a failed drive of the group loses data.",
  [
    ["at-once", "All of it, at once"],
    ["none", "Nothing"],
    ["used-only", "Only what is used"],
  ],
  ({ plan }) => {
    const hours = predict(plan)
      .pools.flatMap((pool) => pool.groups)
      .map((group) => group.firstFill?.expected ?? 0);
    const longest = Math.max(0, ...hours);
    return longest > 0 ? `A group like those of the plan takes ${lengthWords(longest)} to fill when it is made.` : null;
  },
);

export const preference = entry(
  "preference",
  "prediction",
  "What does it favour while it rebuilds, fills, rewrites or checks?",
  "Favouring the work makes it 1.4 times as fast, as far as the drives can; favouring users, 0.4 times. A step " +
    "of the plan can differ.",
  [
    ["rebuild", "The work"],
    ["balanced", "Both alike"],
    ["users", "Its users"],
  ],
  longestRebuild,
);

export const parityRateLimit = entry(
  "parityRateLimit",
  "prediction",
  "How fast does its processor work out parity?",
  "A slow one holds back rebuilds, checks, reading and writing of what has parity.",
  [
    [null, "As fast as the drives"],
    [40e6, "40 MB/s, as a very small board does"],
  ],
  longestRebuild,
  { unit: "MB/s", asValue: 1e6, least: 1, most: 100_000 },
);

export const parityWrites = entry(
  "parityWrites",
  "prediction",
  "When is parity written?",
  "By schedule, what came after the last update of the parity is not protected.",
  [
    ["at-once", "At once"],
    ["by-schedule", "By schedule"],
  ],
);

export const rebuilding = entry(
  "rebuilding",
  "prediction",
  "What does a rebuild copy?",
  "Changes the hours of a rebuild.",
  [
    ["whole-drive", "The whole drive"],
    ["used-only", "Only what is used"],
  ],
  longestRebuild,
);
