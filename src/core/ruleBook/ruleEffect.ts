import type { Bytes } from "../bytes/bytes";
import type { BoxRules, Plan } from "../document/plan";
import type { Finding } from "../findings/finding";
import { predict } from "../prediction/predict";

/** What a rule, set otherwise, would change about the present plan. */
export interface RuleEffect {
  /** The change of usable space, in bytes. */
  usableBytes: Bytes;
  /** Findings that would come, and that would go. */
  come: Finding[];
  go: Finding[];
}

const key = (finding: Finding) =>
  `${finding.severity} ${finding.code} ${finding.drives.join(",")} ${finding.pointer ?? ""}`;

/**
 * Predicts the plan with other rules and compares it with the plan as it is.
 *
 * @param change the rules that would be otherwise
 * @example ruleEffect(clinic, { systemReserveBytes: 0 }).usableBytes // +32.2 GB: 10 GiB of each of three drives' worth
 */
export function ruleEffect(plan: Plan, change: Partial<BoxRules>): RuleEffect {
  const other: Plan = {
    ...plan,
    box: { ...plan.box, rules: { ...plan.box.rules, overrides: { ...plan.box.rules.overrides, ...change } } },
  };
  const [now, then] = [predict(plan).pools, predict(other).pools];
  const usable = (pools: typeof now) => pools.reduce((sum, pool) => sum + pool.usableBytes, 0);
  const findings = (pools: typeof now) => pools.flatMap((pool) => pool.findings);
  const [keysNow, keysThen] = [new Set(findings(now).map(key)), new Set(findings(then).map(key))];
  return {
    usableBytes: usable(then) - usable(now),
    come: findings(then).filter((finding) => !keysNow.has(key(finding))),
    go: findings(now).filter((finding) => !keysThen.has(key(finding))),
  };
}
