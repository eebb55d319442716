import { fewestDrives } from "../layouts/problemsOfLayout";
import { layoutOf } from "../layouts/registry";
import { predict } from "../prediction/predict";
import { counted } from "../words/counted";
import { entry, freeWords } from "./ruleEntry";

// How a box grows and repairs its pools.

export const widening = entry(
  "widening",
  "steps",
  "Can a group be widened?",
  "Matters when you add a drive.",
  [
    ["one-drive", "By one drive"],
    ["several-drives", "By several at once"],
    ["further-group", "No, only a further group"],
  ],
  ({ rules, pool, group, free }) => {
    if (rules.widening !== "further-group")
      return `${pool.name} can take ${rules.widening === "one-drive" ? "one drive at a time" : "several drives at once"}; ${freeWords({ free })}.`;
    const fewest = fewestDrives(layoutOf(group.layout), rules, group.options);
    return `${pool.name} grows by at least ${counted(fewest, "drive")} at once; ${freeWords({ free })}.`;
  },
);

export const levelChanges = entry(
  "levelChanges",
  "steps",
  "Which changes of level does it make?",
  "Mirror to single to double parity.",
  [
    ["none", "None"],
    ["one-at-a-time", "One at a time"],
    ["in-one-go", "Any in one go"],
  ],
  ({ rules, pool, group }) =>
    ({
      none: `${pool.name} keeps its layout, unless it is made anew from a backup.`,
      "one-at-a-time": `From ${layoutOf(group.layout).shortName}, only the next level can be reached in one step.`,
      "in-one-go": `From ${layoutOf(group.layout).shortName}, any level that the box offers can be reached in one step.`,
    })[rules.levelChanges],
);

export const replacing = entry(
  "replacing",
  "steps",
  "How is a drive replaced?",
  "With the old drive attached the redundancy stays during the copy; it takes a free bay.",
  [
    ["old-attached", "With the old one attached"],
    ["pull-first", "By pulling it first"],
  ],
  ({ rules, pool, free }) => {
    if (rules.replacing === "pull-first") return `While a drive of ${pool.name} is replaced, the pool is degraded.`;
    if (free.length === 0) return "No bay is free, so a drive would still have to be pulled first.";
    return `For the new drive, ${freeWords({ free })}.`;
  },
);

export const claiming = entry(
  "claiming",
  "steps",
  "When does the room of larger drives appear?",
  "A forgotten claim is a common reason why nothing grew.",
  [
    ["by-itself", "By itself"],
    ["per-drive", "After a claim for each drive"],
    ["whole-group", "After a claim for the group"],
  ],
  ({ rules, pool }) =>
    ({
      "by-itself": null,
      "per-drive": `After each larger drive in ${pool.name} a claim is due.`,
      "whole-group": `After the last larger drive of ${pool.name} one claim is due for all.`,
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
  "How is a drive changed?",
  "",
  [
    ["hot-swap", "While it runs"],
    ["power-off", "With the power off"],
    ["stop-pool", "With the pool stopped"],
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
  "Until a first fill has ended, no drive of the group may fail.",
  [
    ["at-once", "All of it, at once"],
    ["none", "Nothing"],
    ["used-only", "Only what is used"],
  ],
  ({ plan }) => {
    const hours = predict(plan)
      .pools.flatMap((pool) => pool.groups)
      .map((group) => group.firstFill?.expected ?? 0);
    const longest = Math.round(Math.max(0, ...hours));
    return longest > 0 ? `A group like those of the plan takes about ${longest} h to fill when it is made.` : null;
  },
);

export const parityWrites = entry(
  "parityWrites",
  "prediction",
  "When is parity written?",
  "By schedule, what came after the last sync is not protected.",
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
  ({ plan }) => {
    const hours = predict(plan)
      .pools.flatMap((pool) => pool.groups.flatMap((group) => group.rebuilds))
      .map((rebuild) => rebuild.hours?.expected ?? 0);
    if (hours.length === 0) return null;
    const longest = Math.round(Math.max(...hours));
    return `The longest rebuild takes about ${longest} h.`;
  },
);
