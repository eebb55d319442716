import type { BoxRules } from "../document/plan";
import type { Layout } from "./layout";

/**
 * How large a drive must be to join a group of a layout on a box. That it must be as large as the largest is asked of
 * hybrids, whose bands end at the sizes of the drives; in other layouts it means as the smallest.
 *
 * @returns the rules, with the answer for the layout
 * @example rulesForJoining(layoutOf("raid5"), { joining: "as-largest-member" }).joining // "as-smallest-member"
 */
export function rulesForJoining<R extends Pick<BoxRules, "joining">>(
  { cutsAtSizes }: Pick<Layout, "cutsAtSizes">,
  rules: R,
): R {
  return rules.joining === "as-largest-member" && !cutsAtSizes ? { ...rules, joining: "as-smallest-member" } : rules;
}
