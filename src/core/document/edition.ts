import { GiB } from "../bytes/bytes";
import type { Plan, RulesChoice } from "./plan";

/** The edition of the ready-made sets of rules: it rises where an answer of a set changes what a pool holds. */
export const EDITION = 2;

/** What a set said in the first edition, where it has said otherwise since, and pools hold otherwise for it. */
const FIRST_EDITION: Partial<Record<RulesChoice["set"], RulesChoice["overrides"]>> = {
  "desktop-mirror": { systemReserveBytes: 2 * GiB },
  "fixed-group": { claiming: "by-itself" },
  "parity-drive": { claiming: "per-drive" },
};

function kept(rules: RulesChoice): RulesChoice {
  const earlier = FIRST_EDITION[rules.set];
  return earlier ? { ...rules, overrides: { ...earlier, ...rules.overrides } } : rules;
}

/**
 * A plan that was written by an earlier edition of the ready-made sets, brought to this one: what its boxes kept stays,
 * as answers of its own, so that its pools hold what they held.
 *
 * @returns the same plan where it is of this edition
 * @example ofThisEdition(oldPlanOfADesktopMirror).box.rules.overrides // { systemReserveBytes: 2 147 483 648 }
 */
export function ofThisEdition(plan: Plan): Plan {
  if ((plan.edition ?? 1) >= EDITION) return plan;
  return {
    ...plan,
    edition: EDITION,
    box: { ...plan.box, rules: kept(plan.box.rules) },
    steps: plan.steps.map((step) =>
      "box" in step && step.box ? { ...step, box: { ...step.box, rules: kept(step.box.rules) } } : step,
    ),
  };
}
