import type { BoxRules, GroupOptions } from "../document/plan";
import type { Layout } from "./layout";
import { wrongCount } from "./problemsOfLayout";

/** Whether a further drive joins what is there, instead of forming a group with others. */
export function takesAnyDrive(layout: Pick<Layout, "widening">): boolean {
  return layout.widening === "joins";
}

/**
 * Whether a group of a layout can take further drives on a box. Mirrors become a copy more of the same.
 *
 * @example widensByDrive(layoutOf("raid5"), { widening: "further-group" }) // false
 */
export function widensByDrive(layout: Pick<Layout, "widening">, rules: Pick<BoxRules, "widening">): boolean {
  return layout.widening !== "never" && rules.widening !== "further-group";
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
  rules: Pick<BoxRules, "widening" | "minimumDrives" | "arrayFormat">,
  options: GroupOptions = {},
): boolean {
  return (
    widensByDrive(layout, rules) &&
    layout.widening !== "copies" &&
    wrongCount(layout, drives + 1, rules, options) === null
  );
}
