import type { Bytes } from "@/core/bytes/bytes";
import { FEW_SECTORS, SHORT_BY, SLOW_BY } from "@/core/rehearsal/whatCanHappen";
import type { Mishap } from "@/core/simulator/mishaps";
import type { Option } from "../kit/Select";

/** What of a box something can befall, each with its name. */
export interface Breakable {
  /** Drives in bays that work, those beside the box that do, and those that are out of it and belong into it. */
  inBays: readonly Option[];
  onShelf: readonly Option[];
  away: readonly Option[];
  volumes: readonly Option[];
  /** Pools whose parity is written by schedule. */
  scheduled: readonly Option[];
  bytesOf: (drive: string) => Bytes;
  /** Whether a battery supply is before it. */
  hasUps: boolean;
}

/** A mishap that can be let happen, and what it can befall. */
export interface MishapOffer {
  /** Tells it from the others. */
  id: string;
  label: string;
  /** A word or two, for a label that is dragged. */
  short: string;
  /** What it means, in a sentence. */
  means: string;
  /** What it can befall; nothing where that is the box. */
  of?: readonly Option[];
  mishap: (of: string) => Mishap;
}

const MANY_SECTORS = 40;

/** What can befall a drive that works in its bay. */
const ofDrivesInUse = ({ inBays }: Breakable): MishapOffer[] => [
  {
    id: "dies",
    label: "A drive dies",
    short: "Dies",
    means: "It answers nothing more, and the box throws it out.",
    of: inBays,
    mishap: (drive) => ({ kind: "drive-dies", drive }),
  },
  {
    id: "bad-sectors",
    label: "A drive gets sectors that cannot be read",
    short: "Bad sectors",
    means: `At ${FEW_SECTORS} places. Nothing is said of it until they are read.`,
    of: inBays,
    mishap: (drive) => ({ kind: "unreadable", drive, blocks: FEW_SECTORS }),
  },
  {
    id: "many-bad-sectors",
    label: "A drive gets very many of them",
    short: "Many bad sectors",
    means: `At ${MANY_SECTORS} places. Nothing is said of it until they are read.`,
    of: inBays,
    mishap: (drive) => ({ kind: "unreadable", drive, blocks: MANY_SECTORS }),
  },
  {
    id: "loose",
    label: "A cable comes loose",
    short: "Cable loose",
    means: "The box does not see the drive any more. It can come back.",
    of: inBays,
    mishap: (drive) => ({ kind: "goes-missing", drive }),
  },
  {
    id: "pulled",
    label: "The wrong drive is pulled",
    short: "Pulled",
    means: "A drive that works is taken out of the box. It can be put back.",
    of: inBays,
    mishap: (drive) => ({ kind: "wrong-drive-pulled", drive }),
  },
  {
    id: "slow",
    label: "A drive is four times as slow",
    short: "Slow",
    means: "What is begun from then on with that drive takes longer.",
    of: inBays,
    mishap: (drive) => ({ kind: "slow", drive, times: SLOW_BY }),
  },
];

/** What can befall a drive that is out of its box, or is not in it yet. */
const ofOtherDrives = ({ onShelf, away, bytesOf }: Breakable): MishapOffer[] => [
  {
    id: "back",
    label: "A drive that was away comes back",
    short: "Comes back",
    means: "Within a quarter of an hour it is taken in as it was; later it is filled from the others.",
    of: away,
    mishap: (drive) => ({ kind: "comes-back", drive }),
  },
  {
    id: "short",
    label: "A new drive is 1 % smaller than it should be",
    short: "Too small",
    means: "It shows when the drive is to be used. What is less than that, this box is too coarse to tell.",
    of: onShelf,
    mishap: (drive) => ({ kind: "short", drive, bytes: Math.round(bytesOf(drive) * SHORT_BY) }),
  },
];

/** What can befall the box, or what is stored on it. */
const ofTheBox = ({ volumes, scheduled, hasUps }: Breakable): MishapOffer[] => [
  {
    id: "power-cut",
    label: "The power is cut",
    short: "Power cut",
    means: hasUps
      ? "The battery supply keeps the box going."
      : "It comes back at once. What is under way goes on where it was, as far as it can.",
    mishap: () => ({ kind: "power-cut" }),
  },
  {
    id: "forgotten",
    label: "The next step that makes a volume larger is forgotten",
    short: "Forgotten",
    means: "It is ticked off and not done.",
    mishap: () => ({ kind: "grow-forgotten" }),
  },
  {
    id: "parity-updated",
    label: "The parity is updated by its schedule",
    short: "Parity updated",
    means: "After a loss, it would record the loss.",
    of: scheduled,
    mishap: (pool) => ({ kind: "parity-updated", pool }),
  },
  {
    id: "deleted",
    label: "Somebody deletes everything on a volume",
    short: "Deleted",
    means: "No layout helps against it; a backup does.",
    of: volumes,
    mishap: (volume) => ({ kind: "deletion", volume }),
  },
  {
    id: "fire",
    label: "Fire, or theft of the box",
    short: "Fire, theft",
    means: "All that is in the place is gone, backups that are kept there too.",
    mishap: () => ({ kind: "fire" }),
  },
];

/**
 * What can go wrong with a simulated box as it is.
 *
 * @example mishapOffers(box).map(({ short }) => short) // ["Dies", "Bad sectors", …]
 */
export const mishapOffers = (box: Breakable): MishapOffer[] =>
  [...ofDrivesInUse(box), ...ofOtherDrives(box), ...ofTheBox(box)].filter(({ of }) => !of || of.length > 0);
