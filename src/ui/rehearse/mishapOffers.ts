import type { UnitFamily } from "@/core/bytes/formatBytes";
import { hasParitySchedule } from "@/core/layouts/hasParitySchedule";
import { rulesOfBox } from "@/core/box/rulesOfBox";
import type { Drive, Plan } from "@/core/document/plan";
import { FEW_SECTORS, SHORT_BY, SLOW_BY } from "@/core/rehearsal/whatCanHappen";
import type { Mishap } from "@/core/simulator/mishaps";
import { driveWords } from "./mishapWords";

/** A mishap that can be let happen, and what it can befall. */
export interface MishapOffer {
  kind: Mishap["kind"];
  label: string;
  /** A word or two, for a label that is dragged. */
  short: string;
  means: string;
  /** What it can befall; nothing where that is the box. */
  of?: readonly { value: string; label: string }[];
  mishap: (of: string) => Mishap;
}

const works = ({ drives }: Plan) => drives.filter(({ state, place }) => state === undefined && "bay" in place);
const waits = ({ drives }: Plan) => drives.filter(({ state, place }) => state === undefined && "shelf" in place);

/** What can befall a drive. */
function ofDrives(plan: Plan, unit: UnitFamily): MishapOffer[] {
  const named = (drives: readonly Drive[]) =>
    drives.map(({ id }) => ({ value: id, label: driveWords(plan, id, unit) }));
  const inBays = named(works(plan));
  const onShelf = named(waits(plan));
  return [
    {
      kind: "drive-dies",
      label: "A drive dies",
      short: "Dies",
      means: "It answers nothing more, and the box throws it out.",
      of: inBays,
      mishap: (drive) => ({ kind: "drive-dies", drive }),
    },
    {
      kind: "unreadable",
      label: "A drive gets sectors that cannot be read",
      short: "Bad sectors",
      means: "Nothing is said of it until they are read.",
      of: inBays,
      mishap: (drive) => ({ kind: "unreadable", drive, blocks: FEW_SECTORS }),
    },
    {
      kind: "goes-missing",
      label: "A cable comes loose",
      short: "Cable loose",
      means: "The box does not see the drive any more. It can be put back.",
      of: inBays,
      mishap: (drive) => ({ kind: "goes-missing", drive }),
    },
    {
      kind: "wrong-drive-pulled",
      label: "The wrong drive is pulled",
      short: "Pulled",
      means: "A drive that works is taken out of the box. It can be put back.",
      of: inBays,
      mishap: (drive) => ({ kind: "wrong-drive-pulled", drive }),
    },
    {
      kind: "slow",
      label: "A drive is four times slower",
      short: "Slow",
      means: "What is begun from then on with that drive takes longer.",
      of: inBays,
      mishap: (drive) => ({ kind: "slow", drive, times: SLOW_BY }),
    },
    {
      kind: "short",
      label: "A new drive is 1 % smaller than it should be",
      short: "Too small",
      means: "It shows when the drive is to be used.",
      of: onShelf,
      mishap: (drive) => ({
        kind: "short",
        drive,
        bytes: Math.round((plan.drives.find(({ id }) => id === drive)?.bytes ?? 0) * SHORT_BY),
      }),
    },
  ];
}

/** What can befall the box, or what is stored on it. */
function ofTheBox(plan: Plan): MishapOffer[] {
  const rules = rulesOfBox(plan);
  const scheduled = plan.pools.filter((pool) => hasParitySchedule(pool, rules));
  return [
    {
      kind: "power-cut",
      label: "The power is cut",
      short: "Power cut",
      means: plan.box.ups
        ? "The battery supply keeps the box going."
        : "It comes back at once. What is under way goes on where it was, as far as it can.",
      mishap: () => ({ kind: "power-cut" }),
    },
    {
      kind: "grow-forgotten",
      label: "The next step that makes a volume larger is forgotten",
      short: "Forgotten",
      means: "It is ticked off and not done.",
      mishap: () => ({ kind: "grow-forgotten" }),
    },
    {
      kind: "parity-updated",
      label: "The parity is updated by its schedule",
      short: "Parity updated",
      means: "After a loss, it records the loss.",
      of: scheduled.map(({ id, name }) => ({ value: id, label: name || "Pool" })),
      mishap: (pool) => ({ kind: "parity-updated", pool }),
    },
    {
      kind: "deletion",
      label: "Somebody deletes everything on a volume",
      short: "Deleted",
      means: "No layout helps against it; a backup does.",
      of: plan.pools.flatMap(({ volumes }) => volumes.map(({ id, name }) => ({ value: id, label: name || "Volume" }))),
      mishap: (volume) => ({ kind: "deletion", volume }),
    },
    {
      kind: "fire",
      label: "Fire, or theft of the box",
      short: "Fire, theft",
      means: "All that is in the place is gone, backups that are kept there too.",
      mishap: () => ({ kind: "fire" }),
    },
  ];
}

/**
 * What can go wrong with a box as it is.
 *
 * @example offersFor(plan, "TB").map(({ short }) => short) // ["Dies", "Bad sectors", …]
 */
export const offersFor = (plan: Plan, unit: UnitFamily): MishapOffer[] =>
  [...ofDrives(plan, unit), ...ofTheBox(plan)].filter(({ of }) => !of || of.length > 0);
