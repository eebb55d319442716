import { usableOf } from "../bands/contents";
import type { Bytes } from "../bytes/bytes";
import { roomOf } from "../drives/room";
import type { Layout } from "../layouts/layout";
import { layouts } from "../layouts/registry";
import type { PrintedArray, PrintedMember } from "./printedBox";

/**
 * The layout of the catalogue that an array of the kernel's driver is; null for one that is not in it.
 *
 * @param copies how often striped mirrors keep each block; null for other levels
 */
export function layoutOfLevel(level: string | null, copies: number | null): Layout | null {
  if (level === null || (copies !== null && copies !== 2)) return null;
  return layouts.find(({ kernelLevel }) => kernelLevel === level) ?? null;
}

/** How many members' worth of data an array of so many members holds. */
export function sharesOf(layout: Layout, members: number): number {
  const { copies, parity } = layout.stripe({});
  return copies === "all" ? 1 : (members - parity) / copies;
}

/** What stands in an array apart from what a rewrite is only bringing in, in its places. */
export const standing = ({ places, joining }: PrintedArray): (PrintedMember | null)[] =>
  places.filter((place) => !joining.some((each) => each.device === place?.device));

/** The layout that an array has until a rewrite is over. */
export const levelOf = (array: PrintedArray): Layout | null =>
  layoutOfLevel(array.levelBefore ?? array.level, array.copies);

/** What an array uses of each member, by its size. */
export function usedOfEach(array: PrintedArray): Bytes | null {
  const layout = levelOf(array);
  const shares = layout ? sharesOf(layout, standing(array).length) : 0;
  return shares > 0 ? array.bytes / shares : null;
}

/** The sizes of what stood in the places of an array, null where that is printed nowhere. */
function sizesOf(array: PrintedArray): (Bytes | null)[] {
  // What has been thrown out and is still there stood in the first of the empty places.
  const thrown = [...array.failed, ...array.strangers];
  return standing(array).map((place) => (place ?? thrown.shift())?.bytes ?? null);
}

/** The same; of an empty place of which nothing is known what the smallest other has. */
export function slicesOf(array: PrintedArray): Bytes[] | null {
  const sizes = sizesOf(array);
  const known = sizes.filter((bytes) => bytes !== null);
  return known.length === 0 ? null : sizes.map((bytes) => bytes ?? Math.min(...known));
}

/**
 * What the kernel's driver makes of an array's members, by its own rule, in bytes: what the size that is read is held
 * against. Null for one of older metadata, or whose level or members are not known: a member that is missing may have
 * been the smallest.
 *
 * @example expectedBytes(array)
 * // to the byte what the kernel prints; more where the array does not reach as far as it could
 */
export function expectedBytes(array: PrintedArray): Bytes | null {
  const layout = levelOf(array);
  const slices = slicesOf(array);
  if (!layout || !slices || array.metadata !== "1.2" || slices.length < layout.minimumDrives) return null;
  const nothingAside = { systemReserveBytes: 0, replacementMarginShare: 0 };
  const rooms = slices.map((bytes, i) => roomOf({ id: String(i), bytes }, nothingAside));
  const expected = usableOf(layout.layOut(rooms, { arrayFormat: "linux-raid", options: { pairs: "as-named" } }));
  return sizesOf(array).includes(null) && expected !== array.bytes ? null : expected;
}
