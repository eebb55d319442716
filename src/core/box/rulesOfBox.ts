import type { BoxRules, Plan } from "../document/plan";
import { rulesOf } from "../rules/ruleSets";

export const rulesOfBoxes = new WeakMap<Plan["box"], BoxRules>();

/** The rules of a plan's box: the same object for the same box, so that what is known of groups can be taken over. */
export function rulesOfBox({ box }: Plan): BoxRules {
  const kept = rulesOfBoxes.get(box);
  if (kept) return kept;
  const rules = rulesOf(box.rules);
  rulesOfBoxes.set(box, rules);
  return rules;
}
