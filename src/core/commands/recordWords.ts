import { stepLabel } from "../steps/stepLabel";
import type { Plan } from "../document/plan";

/** A step in quotes, for what was recorded of it. */
export function stepWords(plan: Plan, id: string): string {
  const step = plan.steps.find((each) => each.id === id);
  return step ? `“${stepLabel(step, plan, "TB")}”` : "a step";
}
