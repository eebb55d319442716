import type { BoxRules, GroupOptions } from "../document/plan";
import type { Layout } from "./layout";
import { wrongCount } from "./problemsOfLayout";

/** Whether a further drive joins what is there, instead of forming a group with others. */
export function takesAnyDrive(layout: Pick<Layout, "widening">): boolean {
  return layout.widening === "joins";
}

/**
 * Whether a group of a layout can take further drives on a box. To a mirror a copy more can be attached also where
 * groups keep their width.
 *
 * @example widensByDrive(layoutOf("raid5"), { widening: "further-group" }) // false
 */
export function widensByDrive(layout: Pick<Layout, "widening">, rules: Pick<BoxRules, "widening">): boolean {
  return layout.widening === "copies" || (layout.widening !== "never" && rules.widening !== "further-group");
}

/**
 * How many drives a group of a layout takes in one step at most. Where a box widens by one at a time, drives that go in
 * by twos count as one.
 *
 * @example widenedAtOnce(layoutOf("raid10"), rulesOf({ set: "classic-raid" })) // 2
 */
export function widenedAtOnce({ multiple = 1 }: Layout, rules: Pick<BoxRules, "widening" | "arrayFormat">): number {
  if (rules.widening !== "one-drive") return Infinity;
  return rules.arrayFormat === "linux-raid" ? 1 : multiple;
}

/**
 * Drives that are to join a group, in the turns in which a box takes them in.
 *
 * @example turnsOf(["d4", "d5"], layoutOf("raid5"), rulesOf({ set: "classic-raid" })) // [["d4"], ["d5"]]
 */
export function turnsOf(
  drives: readonly string[],
  layout: Layout,
  rules: Pick<BoxRules, "widening" | "arrayFormat">,
): string[][] {
  const most = Math.min(drives.length, widenedAtOnce(layout, rules));
  return Array.from({ length: Math.ceil(drives.length / most) }, (_, i) => drives.slice(i * most, (i + 1) * most));
}

/**
 * Whether a group of so many drives holds more with a single one more: not a mirror, which gets a copy more, and not
 * striped mirrors on a box that takes their drives by twos.
 *
 * @example growsByOne(layoutOf("raid10"), 4, rulesOf({ set: "classic-raid" })) // false
 */
export function growsByOne(
  layout: Layout,
  drives: number,
  rules: Pick<BoxRules, "widening" | "minimumDrives" | "mostDrives" | "arrayFormat">,
  options: GroupOptions = {},
): boolean {
  return (
    widensByDrive(layout, rules) &&
    layout.widening !== "copies" &&
    wrongCount(layout, drives + 1, rules, options) === null
  );
}
