import type { Bytes } from "../bytes/bytes";
import type { GroupOptions } from "../document/plan";
import type { Layout } from "../layouts/layout";
import type { Boxes } from "./boxes";
import type { Instance } from "./instance";

/** The sizes that a drive of the pool can have, the smallest first. */
export const sizesOf = ({ sold, groups }: Pick<Instance, "sold" | "groups">): Bytes[] => {
  const owned = groups.flatMap(({ drives }) => drives.map(({ drive }) => drive.bytes));
  return [...new Set([...sold.map(({ bytes }) => bytes), ...owned])].sort((a, b) => a - b);
};

/**
 * In which month so many drives of one size no longer suffice as one band, under the layout that lasts longest.
 *
 * @returns for a number of drives the months of all sizes, in the order of `sizesOf`
 */
export function lastingOf(
  instance: Instance,
  boxes: Boxes,
  layouts: readonly Layout[],
  options: GroupOptions,
): (drives: number) => readonly number[] {
  const known: number[][] = [];
  const sizes = sizesOf(instance);
  const until = (layout: Layout, drives: number, bytes: Bytes): number => {
    const kinds = Array.from({ length: drives }, () => boxes.kindOf(bytes, Infinity));
    return boxes.boxOf([boxes.shapeOf(layout, options, kinds)]).until;
  };
  return (drives) =>
    (known[drives] ??= sizes.map((bytes) => Math.max(0, ...layouts.map((layout) => until(layout, drives, bytes)))));
}
