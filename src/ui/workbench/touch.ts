import { formatBytes, type UnitFamily } from "@/core/bytes/formatBytes";
import type { Walk } from "@/core/walk/moment";

/** What a step has done with a drive, in a word, and how much of it. */
export interface Touch {
  word: "read" | "written" | "rewritten" | "erased";
  /** How much was read and written; empty where nothing was. */
  title: string;
}

/**
 * What the step that led to a moment has done with a drive: read it, written it, erased it; null where it left it
 * alone.
 *
 * @param at the moment, 0 for now
 */
export function touchOf({ moments }: Walk, at: number, id: string, unit: UnitFamily): Touch | null {
  const walked = moments[at]?.walked;
  if (!walked?.done) return null;
  const { reads, writes } = walked.cost.work.find((each) => each.drive === id) ?? { reads: 0, writes: 0 };
  const parts = [
    ...(reads > 0 ? [`${formatBytes(reads, unit)} read`] : []),
    ...(writes > 0 ? [`${formatBytes(writes, unit)} written`] : []),
  ];
  // What is only being bought has nothing on it that could be erased.
  const isOwned = !moments[at - 1]?.state.plan.drives.find((drive) => drive.id === id)?.toBuy;
  const erased = walked.cost.erased.includes(id) && isOwned;
  if (!erased && parts.length === 0) return null;
  const word = erased ? "erased" : writes === 0 ? "read" : reads > 0 ? "rewritten" : "written";
  return { word, title: parts.join(", ") };
}
