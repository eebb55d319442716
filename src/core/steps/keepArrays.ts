import { withKept } from "../box/arrays";
import { groupOf } from "../box/find";
import type { BoxRules, Group, Plan } from "../document/plan";

/**
 * Writes down what a group's arrays keep, before it is changed. For use inside `changed`.
 *
 * @param before the box before the change
 * @param rewritten whether the change rewrites them
 */
export function keepArrays(before: Plan, group: Group, rules: BoxRules, rewritten = false): void {
  const was = groupOf(before, group.id);
  const { kept } = was ? withKept(before, was, rules, rewritten) : {};
  if (kept) group.kept = kept;
}
