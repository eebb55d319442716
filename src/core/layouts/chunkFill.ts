import type { Bytes } from "../bytes/bytes";
import { CHUNK_BYTES } from "./chunks";

/**
 * How a balanced chunk pool spreads what is stored: each stripe of `width` chunks goes to the drives with most room, so
 * the free parts are levelled from the largest down, and no drive holds a stripe twice.
 *
 * @param rooms of the drives, in bytes
 * @param stripes how many stripes are stored
 * @returns bytes on each drive, whole chunks; they sum to width × stripes chunks where so many fit
 * @example spreadChunks([2, 2, 4].map((gib) => gib * GiB), 2, 2)
 * // one chunk on one of the small drives, or none, and the rest on the large: [1, 1, 2] GiB
 */
export function spreadChunks(rooms: readonly Bytes[], width: number, stripes: number): Bytes[] {
  const chunks = rooms.map((bytes) => Math.floor(bytes / CHUNK_BYTES));
  const wanted = width * stripes;
  // The lowest level such that what is above it, at most a chunk of every stripe, is no more than what is stored.
  const above = (level: number) => chunks.map((count) => Math.min(stripes, Math.max(0, count - level)));
  const total = (list: readonly number[]) => list.reduce((sum, each) => sum + each, 0);
  let low = 0;
  let high = Math.max(0, ...chunks);
  while (low < high) {
    const middle = Math.floor((low + high) / 2);
    if (total(above(middle)) <= wanted) high = middle;
    else low = middle + 1;
  }
  const spread = above(low);
  let left = wanted - total(spread);
  // What remains is less than one level: a chunk more on some drives that have room and do not hold every stripe yet.
  for (let i = 0; i < spread.length && left > 0; i += 1) {
    const own = spread[i] ?? 0;
    if (own < stripes && own < (chunks[i] ?? 0)) {
      spread[i] = own + 1;
      left -= 1;
    }
  }
  return spread.map((count) => count * CHUNK_BYTES);
}
