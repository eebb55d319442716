import type { Band } from "@/core/bands/band";
import { heightOf } from "@/core/bands/band";
import { partWords } from "@/core/bands/partWords";
import { contentsOf } from "@/core/bands/contents";
import { formatBytes, type UnitFamily } from "@/core/bytes/formatBytes";

/** What a band's scheme is called over so many members. */
export function nameOfScheme(band: Band): string {
  const count = band.members.length;
  switch (band.scheme.kind) {
    case "single":
      return "one drive without protection";
    case "striped-mirrors":
      return `striped mirrors over ${count} drives`;
    case "chunk-parity":
      return `stripes of ${count - band.scheme.parity} data and ${band.scheme.parity} parity chunks`;
    case "dedicated-parity":
      return `${count - band.scheme.parity} data and ${band.scheme.parity} parity drives`;
    case "stripe":
      return `stripe over ${count} drives`;
    case "mirror":
      return count === 2 ? "mirror of 2 drives" : `${count} copies`;
    case "parity":
      return `${["single", "double", "triple"][band.scheme.parity - 1]} parity over ${count} drives`;
  }
}

/**
 * A band in a sentence.
 *
 * @example describeBand(bands, 0, "TB")
 * // "The lower part of all 4 drives: single parity over 4 drives, 3.99 TB of each, …"
 */
export function describeBand(bands: readonly Band[], index: number, unit: UnitFamily): string {
  const band = bands[index];
  if (!band) return "";
  return (
    `${partWords(bands, index)}: ${nameOfScheme(band)}, ${formatBytes(heightOf(band), unit)} of each, holds ` +
    `${formatBytes(contentsOf(band).data, unit)} of data.`
  );
}
