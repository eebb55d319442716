import { MOST_FAILURES_COUNTED } from "../prediction/predictPool";
import type { Figures } from "./figures";

/** A figure by which choices are sorted, plotted and weighed against one another. */
export interface Measure {
  id: MeasureId;
  /** What it is called, for headings and axes. */
  name: string;
  /** Its unit, for axes; empty for counts. */
  unit: "bytes" | "share" | "rate" | "hours" | "money per TB" | "drives" | "chance" | "";
  better: "more" | "less";
  /** The figure itself, or null where it is not known. Bytes, shares of 1, bytes per second, hours. */
  of: (figures: Figures) => number | null;
}

export type MeasureId =
  | "usable"
  | "tolerance"
  | "loss-of-one-more"
  | "loss-of-two"
  | "idle"
  | "read"
  | "write"
  | "small-writes"
  | "rebuild"
  | "rebuild-reads"
  | "price"
  | "drives"
  | "chance";

/**
 * The share of all sets of `failed` drives whose loss destroys data: 0 to 1; 1 where there are not as many drives, or
 * where it is up to the box what they take.
 */
export function lossShare({ survival }: Pick<Figures, "survival">, failed: number): number {
  const counted = survival.find((each) => each.failed === failed);
  return counted ? 1 - counted.survived / counted.sets : 1;
}

/** The same where it can be told; null where it depends on where the box puts its chunks. */
const knownLoss = (figures: Figures, failed: number): number | null =>
  isUpToBox(figures, failed) ? null : lossShare(figures, failed);

/** Whether it is up to the box what becomes of data when so many drives fail: so many there are, none was counted. */
export const isUpToBox = ({ survival, drives }: Pick<Figures, "survival" | "drives">, failed: number): boolean =>
  failed <= Math.min(drives, MOST_FAILURES_COUNTED) && !survival.some((each) => each.failed === failed);

/** Every measure, in the order in which it is listed. */
export const MEASURES: readonly Measure[] = [
  { id: "usable", name: "Usable space", unit: "bytes", better: "more", of: (figures) => figures.usableBytes },
  {
    id: "tolerance",
    name: "Failed drives survived, whichever",
    unit: "",
    better: "more",
    of: (figures) => figures.tolerance,
  },
  {
    id: "loss-of-one-more",
    name: "Lost if one more fails",
    unit: "share",
    better: "less",
    of: (figures) => knownLoss(figures, figures.tolerance + 1),
  },
  {
    id: "loss-of-two",
    name: "Lost if two fail",
    unit: "share",
    better: "less",
    of: (figures) => knownLoss(figures, 2),
  },
  { id: "idle", name: "Unused space", unit: "bytes", better: "less", of: (figures) => figures.idleBytes },
  { id: "read", name: "Long reads", unit: "rate", better: "more", of: (figures) => figures.speed?.read ?? null },
  { id: "write", name: "Long writes", unit: "rate", better: "more", of: (figures) => figures.speed?.write ?? null },
  {
    id: "small-writes",
    name: "Small writes, in drives",
    unit: "drives",
    better: "more",
    of: (figures) => (figures.speed ? Math.round(figures.speed.smallWrites * 100) / 100 : null),
  },
  {
    id: "rebuild",
    name: "Longest rebuild",
    unit: "hours",
    better: "less",
    of: (figures) => figures.rebuild?.expected ?? null,
  },
  {
    id: "rebuild-reads",
    name: "Read for a rebuild",
    unit: "bytes",
    better: "less",
    of: (figures) => figures.rebuildReads,
  },
  {
    id: "price",
    name: "Price per usable TB",
    unit: "money per TB",
    better: "less",
    of: (figures) => figures.pricePerTB,
  },
  {
    id: "chance",
    name: "Loss of something in ten years",
    unit: "chance",
    better: "less",
    of: (figures) => figures.chance?.tenYears ?? null,
  },
  { id: "drives", name: "Bays taken", unit: "drives", better: "less", of: (figures) => figures.drives },
];

/**
 * The measure of an id.
 *
 * @example measureOf("usable").better // "more"
 */
export function measureOf(id: MeasureId): Measure {
  return MEASURES.find((measure) => measure.id === id) ?? (MEASURES[0] as Measure);
}

/** A figure turned so that more is better; the worst there can be where it is not known. */
export function merit(measure: Measure, figures: Figures): number {
  const value = measure.of(figures);
  if (value === null) return -Infinity;
  return measure.better === "more" ? value : -value;
}
