import { driveInBay } from "../box/bays";
import type { UnitFamily } from "../bytes/formatBytes";
import type { Plan, RuleName } from "../document/plan";
import { rulesOf } from "../rules/ruleSets";
import { entryOf } from "./registry";

/**
 * What a rule, as it is now, means for the present plan, in a sentence; null where it means nothing for it yet.
 *
 * @example ruleConsequence(clinic, "joining", "TB") // "A drive needs at least 12.00 TB to join Images."
 */
export function ruleConsequence(plan: Plan, rule: RuleName, family: UnitFamily): string | null {
  const [pool] = plan.pools;
  const [group] = pool?.groups ?? [];
  if (!pool || !group) return null;
  const bays = Array.from({ length: plan.box.bays }, (_, i) => i + 1);
  return (
    entryOf(rule)?.consequence({
      plan,
      rules: rulesOf(plan.box.rules),
      family,
      pool,
      group,
      members: plan.drives.filter((drive) => group.drives.includes(drive.id)),
      free: bays.filter((bay) => driveInBay(plan, bay) === null),
    }) ?? null
  );
}
