import { ageWords } from "@/core/rehearsal/summary";
import type { Cell } from "@/core/rehearsal/table";
import { lengthWords } from "@/core/time/hoursWords";

/** What a cell shows: a sign, what its worst case came to, and how often. */
export interface CellShown {
  sign: string;
  words: string;
  /** In how many of its cases, where not in all. */
  of: string;
  look: "lost" | "restored" | "degraded" | "whole";
}

const oldest = ({ tolls }: Cell): number => Math.max(0, ...[...tolls.values()].map((toll) => toll.oldest));

/**
 * What a cell of the table shows.
 *
 * @example shownIn(cell).words // "back, up to 7 days old"
 */
export function shownIn(cell: Cell): CellShown {
  const some = (n: number) => (n === cell.tried ? (n === 1 ? "" : `all ${n}`) : `${n} of ${cell.tried}`);
  if (cell.lost > 0) return { sign: "✕", words: "lost", of: some(cell.lost), look: "lost" };
  if (cell.restored > 0)
    return { sign: "↩", words: `back, ${ageWords(oldest(cell))}`, of: some(cell.restored), look: "restored" };
  if (cell.degraded > 0)
    return {
      sign: "◐",
      words: `degraded ${lengthWords(cell.longest).replace("about ", "")}`,
      of: some(cell.degraded),
      look: "degraded",
    };
  return { sign: "●", words: "nothing lost", of: "", look: "whole" };
}
