import { counted, oneOrMany } from "../words/counted";
import type { Band } from "./band";

const drivesOf = (band: Band) => band.members.map(({ drive }) => drive);

/** Whether each band lies on drives of the one below it, as where drives are cut level. */
const nested = (bands: readonly Band[]): boolean =>
  bands.every((band, i) => {
    const below = bands[i - 1];
    return !below || drivesOf(band).every((drive) => drivesOf(below).includes(drive));
  });

/** Three heights have names of their own; of more, each is counted from the bottom. */
function heightWords(index: number, count: number): string {
  if (count === 1) return "What is used of";
  if (index === 0) return "The lower part of";
  if (index === count - 1) return "The upper part of";
  return count === 3 ? "The middle part of" : `Part ${index + 1} of ${count}, from the bottom, of`;
}

/**
 * Which piece of its drives a band is, at the beginning of a sentence, as an owner would point at it.
 *
 * @param bands those of a group, from the bottom up
 * @param index which of them
 * @example partWords(hybridOf4And4And8And12TB, 0) // "The lower part of all 4 drives"
 * @example partWords(hybridOf4And4And8And12TB, 1) // "The upper part of the 2 largest drives"
 */
export function partWords(bands: readonly Band[], index: number): string {
  const all = new Set(bands.flatMap(drivesOf)).size;
  const own = bands[index]?.members.length ?? 0;
  const whose =
    own === all ? oneOrMany(all, "the drive", "drives").replace(/^\d/, "all $&") : `${own} of the ${all} drives`;
  if (bands.length > 1 && !nested(bands)) return `Part ${index + 1} of ${bands.length}, on ${counted(own, "drive")},`;
  return (
    `${heightWords(index, bands.length)} ` +
    (own < all && nested(bands) ? `the ${oneOrMany(own, "largest drive", "largest drives")}` : whose)
  );
}
