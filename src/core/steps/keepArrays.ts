import { withKept } from "../box/arrays";
import { bandsOfGroup } from "../box/figures";
import { groupOf } from "../box/find";
import type { BoxRules, Group, Plan } from "../document/plan";
import { layoutOf } from "../layouts/registry";

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
  // Pairs stay as they were made, also where a box sorted the drives by size to make them: sizes change.
  const pairs = was && layoutOf(was.layout).chooses === "pairs" ? bandsOfGroup(before, was, rules)[0] : undefined;
  if (!pairs) return;
  group.drives = pairs.members.map(({ drive }) => drive);
  group.options = { ...group.options, pairs: "as-named" };
}
