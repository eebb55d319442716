import { chunkOf, fitArray } from "../bands/arrayFormat";
import type { Bytes } from "../bytes/bytes";
import type { KeptArray } from "../document/plan";
import type { Layout } from "../layouts/layout";
import { layouts } from "../layouts/registry";
import { levelOf, slicesOf, standing, usedOfEach } from "./levels";
import type { PrintedArray } from "./printedBox";

/** An array with the drives in its places, by their ids. */
export interface Seated {
  array: PrintedArray;
  layout: Layout;
  drives: string[];
}

/** Arrays that are one group: one of them, or the bands of a hybrid from the bottom. */
export interface ArrayGroup {
  layout: Layout;
  drives: string[];
  arrays: PrintedArray[];
}

const startOf = (array: PrintedArray): Bytes =>
  Math.min(...standing(array).flatMap((place) => (place ? [place.start] : [])), Number.MAX_SAFE_INTEGER);

/** How many failures a band of a hybrid bears, as one that is cut across so many drives; null where it is none. */
function toleranceOfBand({ layout, drives }: Seated): number | null {
  const { copies, parity } = layout.stripe({});
  if (copies === "all") return drives.length - 1;
  return parity > 0 && drives.length >= parity + 2 ? parity : null;
}

/** The hybrid whose bands these arrays are, each over drives of the one below it; null where they are none. */
function asHybrid(seated: readonly Seated[]): ArrayGroup | null {
  const bands = [...seated].sort((a, b) => b.drives.length - a.drives.length || startOf(a.array) - startOf(b.array));
  const [lowest] = bands;
  if (!lowest) return null;
  const tolerance = toleranceOfBand(lowest);
  const nested = bands.every(({ drives }, i) => drives.every((id) => (bands[i - 1] ?? lowest).drives.includes(id)));
  if (!nested || bands.some((band) => toleranceOfBand(band) !== tolerance)) return null;
  const layout = layouts.find((each) => each.cutsAtSizes && each.nominalTolerance({}) === tolerance);
  return layout ? { layout, drives: lowest.drives, arrays: bands.map(({ array }) => array) } : null;
}

/** Mirrors of which each has a drive of its own and a part of one that they share; null where these are not. */
function asOntoOne(seated: readonly Seated[]): ArrayGroup | null {
  const [first, second] = seated;
  const shared = first?.drives.find((id) => second?.drives.includes(id));
  const layout = layouts.find((each) => each.liesEndToEnd);
  if (shared === undefined || !layout) return null;
  const partOf = ({ array, drives }: Seated) => standing(array)[drives.indexOf(shared)]?.start ?? 0;
  const inOrder = [...seated].sort((a, b) => partOf(a) - partOf(b));
  const others = inOrder.flatMap(({ drives }) => drives.filter((id) => id !== shared));
  const areMirrors = seated.every((each) => each.drives.length === 2 && toleranceOfBand(each) === 1);
  if (!areMirrors || new Set(others).size < seated.length || others.length > seated.length) return null;
  return { layout, drives: [...others, shared], arrays: inOrder.map(({ array }) => array) };
}

/**
 * Arrays that lie on the same volumes or drives, as groups: bands of a hybrid, or each a group of its own. A single
 * array can be the only band of a hybrid too, as far as anything printed tells: it is where the plan has one.
 *
 * @param planned the layout that the plan has for these drives
 * @returns null where they share drives in a way that is no layout
 */
export function groupsOfArrays(seated: readonly Seated[], planned: Layout | null): ArrayGroup[] | null {
  const hybrid = asHybrid(seated);
  if (hybrid && (seated.length > 1 || hybrid.layout === planned)) return [hybrid];
  if (seated.length > 1) {
    const ontoOne = asOntoOne(seated);
    if (ontoOne) return [ontoOne];
    const all = seated.flatMap(({ drives }) => drives);
    if (new Set(all).size < all.length) return null;
  }
  return seated.map(({ array, layout, drives }) => ({ layout, drives, arrays: [array] }));
}

/**
 * What an array keeps, from what is printed of it: where it begins, and what it uses of each member. The space before
 * the data is printed nowhere; it is the driver's own for members of that size, or what is left.
 *
 * @param reserve what the box keeps for itself of each drive, in bytes
 */
export function keptOf(array: PrintedArray, reserve: Bytes): KeptArray | null {
  const layout = levelOf(array);
  const used = usedOfEach(array);
  const slices = slicesOf(array);
  if (!layout?.keepsArrays || !slices || used === null || !Number.isInteger(used) || used <= 0) return null;
  if (layout.zonedWhenUnequal && new Set(slices).size > 1) return null;
  const { parity, copies } = layout.stripe({});
  const scheme =
    copies === "all"
      ? { kind: "mirror" as const }
      : parity > 0
        ? { kind: "parity" as const, parity: parity as 1 | 2 }
        : { kind: "stripe" as const };
  const offset = Math.max(0, Math.min(fitArray("linux-raid", slices, scheme).metadata, Math.min(...slices) - used));
  const chunk = chunkOf("linux-raid", scheme);
  return {
    from: Math.max(0, startOf(array) - reserve),
    offset,
    chunk: used % chunk === 0 ? chunk : 512,
    used,
  };
}

/** How far up the last slice of each drive reaches, in bytes above the box's own. */
export function endsOf(arrays: readonly PrintedArray[], reserve: Bytes): Map<string, Bytes> {
  const ends = new Map<string, Bytes>();
  for (const place of arrays.flatMap(standing)) {
    if (!place?.drive || place.bytes === null) continue;
    ends.set(place.drive, Math.max(ends.get(place.drive) ?? 0, place.start + place.bytes - reserve));
  }
  return ends;
}
