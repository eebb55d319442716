import type { Bytes } from "../bytes/bytes";
import type { GroupOptions } from "../document/plan";
import type { Layout } from "./layout";

/**
 * How much a group of a layout holds at most on drives of some lengths, whatever its arrays keep for themselves: never
 * less than `layOutGroup` gives, and more by no more than their metadata and rounding. Quick, for comparing many.
 *
 * @param lengths of the drives' rooms in bytes, the smallest first, at least as many as the layout wants
 * @param edges heights, the lowest first, at which a hybrid is cut already; above them it is cut at each size
 * @returns bytes of data, or null where no short formula is known for the layout
 * @example usableAtMost(layoutOf("hybrid-1"), {}, [4e12, 4e12, 8e12], []) // 8e12: Σ s − sn
 */
export function usableAtMost(
  layout: Layout,
  options: GroupOptions,
  lengths: readonly Bytes[],
  edges: readonly Bytes[],
): Bytes | null {
  const { data, copies, parity } = layout.stripe(options);
  const [smallest = 0] = lengths;
  if (layout.cutsAtSizes) return ofSlices(parity, lengths, edges);
  if (layout.chunked) {
    if (copies === "all" || data === "rest") return null;
    // Each block of a stripe lies on a drive of its own.
    return highestOf(lengths, data * copies + parity) * data;
  }
  if (copies === "all") return smallest;
  if (layout.independent || data !== "rest") return null;
  return layout.countsSmallest ? ((lengths.length - parity) / copies) * smallest : null;
}

/** Of the drives that reach a slice all but so many hold data. */
function ofSlices(parity: number, lengths: readonly Bytes[], edges: readonly Bytes[]): Bytes {
  let [sum, from] = [0, 0];
  for (const to of edges) {
    let reaching = 0;
    for (const length of lengths) if (length >= to) reaching += 1;
    sum += Math.max(0, reaching - parity) * (to - from);
    from = to;
  }
  for (let i = 0; i < lengths.length - parity; i += 1) sum += Math.max(0, (lengths[i] as number) - from);
  return sum;
}

/** The largest T with Σ min(s, T) ≥ width · T. */
function highestOf(lengths: readonly Bytes[], width: number): Bytes {
  let sum = lengths.reduce((total, length) => total + length, 0);
  let high = sum / width;
  for (let largest = 1; largest < width; largest += 1) {
    sum -= lengths[lengths.length - largest] ?? 0;
    high = Math.min(high, sum / (width - largest));
  }
  return high;
}
