import { oneOrMany } from "./counted";

/**
 * What a pool survives, at the beginning of a sentence. Not how many "may" do so: "no drive may" reads as if none
 * would.
 *
 * @param tolerance how many drives can be lost at once, whichever, with nothing lost
 * @example survivesWords(0) // "If any drive fails, data is lost"
 * @example survivesWords(1) // "Survives the loss of any one drive"
 */
export const survivesWords = (tolerance: number): string =>
  tolerance <= 0
    ? "If any drive fails, data is lost"
    : `Survives the loss of any ${oneOrMany(tolerance, "one drive", "drives")}`;

/**
 * What a pool survives while work runs on it that lowers its protection, within a sentence.
 *
 * @param redundancy how many more drives can be lost meanwhile, whichever
 * @example survivesMeanwhile(0) // "one more failed drive would lose data"
 * @example survivesMeanwhile(1) // "your data survives the loss of only one drive"
 */
export const survivesMeanwhile = (redundancy: number): string =>
  redundancy <= 0
    ? "one more failed drive would lose data"
    : `your data survives the loss of only ${oneOrMany(redundancy, "one drive", "drives")}`;
