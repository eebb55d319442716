import { systemDrives } from "../box/systemFate";
import { GiB } from "../bytes/bytes";
import { formatBytes } from "../bytes/formatBytes";
import { predict } from "../prediction/predict";
import { nameOfDrive } from "../drives/nameOfDrive";
import { counted } from "../words/counted";
import { listOf } from "../words/listOf";
import { entry } from "./ruleEntry";

// What a box keeps for itself, and what its screen shows.

export const systemReserveBytes = entry(
  "systemReserveBytes",
  "prediction",
  "How much of every drive does it keep for itself?",
  "Many boxes keep a system partition and swap on every drive.",
  [
    [0, "Nothing"],
    [2 * GiB, "2 GiB"],
    [10 * GiB, "10 GiB"],
    [20 * GiB, "20 GiB"],
  ],
  undefined,
  { unit: "GiB", asValue: GiB, most: 1024, whole: true },
);

export const replacementMarginShare = entry(
  "replacementMarginShare",
  "prediction",
  "How much of each drive should stay unused, so that a slightly smaller replacement fits?",
  "Two drives of one nominal size can differ by a few MB.",
  [
    [0, "Nothing"],
    [0.001, "0.1 %"],
    [0.005, "0.5 %"],
    [0.01, "1 %"],
  ],
  undefined,
  { unit: "%", asValue: 0.01, most: 10 },
);

export const poolReserveShare = entry(
  "poolReserveShare",
  "prediction",
  "Does it keep a share of the pool?",
  "Some systems keep space to work in.",
  [
    [0, "No", { poolReserveMaxBytes: null }],
    [0.005, "0.5 %", { poolReserveMaxBytes: null }],
    [1 / 32, "1/32", { poolReserveMaxBytes: null }],
    [1 / 32, "1/32, at most 128 GiB", { poolReserveMaxBytes: 128 * GiB }],
  ],
  undefined,
  { unit: "%", asValue: 0.01, most: 10 },
);

export const poolReserveMaxBytes = entry(
  "poolReserveMaxBytes",
  "prediction",
  "At most how much does it keep of a pool?",
  "Matters for large pools of a box that keeps a share.",
  [
    [null, "As much as the share is"],
    [128 * GiB, "128 GiB"],
  ],
  ({ plan, rules, family }) => {
    const kept = predict(plan).pools.flatMap((pool) => pool.ledger.filter(({ cause }) => cause === "pool-reserve"));
    const bytes = kept.reduce((sum, each) => sum + each.bytes, 0);
    return rules.poolReserveShare > 0 ? `It keeps ${formatBytes(bytes, family)} of the plan's pools.` : null;
  },
  { unit: "GiB", asValue: GiB, most: 102400, whole: true },
);

export const partitioning = entry(
  "partitioning",
  "prediction",
  "How does it partition drives?",
  "The older style ends at 2 TiB: a larger drive cannot be used in such a box.",
  [
    ["gpt", "In the newer style (GPT), for drives of any size"],
    ["mbr", "In the older style (MBR), up to 2 TiB"],
  ],
);

export const arrayFormat = entry(
  "arrayFormat",
  "prediction",
  "Is it Linux software RAID? Then sizes are exact.",
  "The kernel's RAID driver has its own metadata and chunks; by its rule sizes are exact to the byte.",
  [
    ["plain", "No, or not known"],
    ["linux-raid", "Yes"],
  ],
);

export const sizesShown = entry(
  "sizesShown",
  "words",
  "How does its own screen show sizes?",
  "12 TB on the label is 10.91 TiB. Some boxes print “TB” behind that figure.",
  [
    ["decimal", "Decimal (12 TB)"],
    ["binary", "Binary (10.91 TiB)"],
    ["binary-printed-as-decimal", "Binary, printed as TB (10.91 TB)"],
  ],
);

export const system = entry(
  "system",
  "prediction",
  "Where is its system?",
  "On a drive of its own, that drive is never in a group.",
  [
    ["own-drive", "On a drive of its own"],
    ["on-all-drives", "On all drives"],
  ],
  ({ plan, rules, family, pool, members }) => {
    if (rules.system === "on-all-drives") {
      const kept = members.length * rules.systemReserveBytes;
      const words =
        kept > 0
          ? `${formatBytes(kept, family)} of the ${counted(members.length, "drive")} of ${pool.name} are kept for it. `
          : "";
      return `${words}The box runs as long as one drive in a bay does.`;
    }
    const drives = systemDrives(plan, rules);
    if (drives.length === 0)
      return "No drive of the plan carries it, so whichever of them fails, the box still starts.";
    return (
      `It is on ${listOf(drives.map((drive) => nameOfDrive(drive, family)))}: if that fails, the pools stay ` +
      "whole, but the box has to be set up again."
    );
  },
);
