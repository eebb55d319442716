import type { UnitFamily } from "../bytes/formatBytes";
import type { Plan, Step } from "../document/plan";
import type { WalkedMoment, WalkedStep } from "../walk/moment";
import { walkPlan } from "../walk/walkPlan";

/** A step that is carried out now: the box before it and after it. */
export interface StepNow {
  step: Step;
  before: WalkedMoment;
  after: WalkedMoment;
  walked: WalkedStep;
}

const isUnderWay = (plan: Plan, id: string) => plan.underWay?.some(({ step }) => step === id) ?? false;

/**
 * The steps that are under way, and the next one where it need not wait for them: since it comes before them, or begins
 * with the one before it. Skipped ones are passed over.
 *
 * @example currentSteps(plan).map(({ id }) => id) // ["s1"]
 */
export function currentSteps(plan: Plan): Step[] {
  const steps = plan.steps.filter((step) => !step.disabled || isUnderWay(plan, step.id));
  const at = steps.findIndex((step) => !isUnderWay(plan, step.id));
  const next = at === 0 || steps[at]?.together ? steps[at] : undefined;
  return steps.filter((step) => step === next || isUnderWay(plan, step.id));
}

/** A step as if it were the first: what it begins with is done or under way. */
function alone(step: Step): Step {
  const { together: _together, disabled: _disabled, ...rest } = step;
  return rest as Step;
}

/**
 * A step on the box as it is now, whatever stands before it in the plan.
 *
 * @returns null where the plan has no such step
 * @example stepNow(plan, "s1", "TB")?.walked.done // true: nothing stands against it
 */
export function stepNow(plan: Plan, id: string, family: UnitFamily, today: string | null = null): StepNow | null {
  const step = plan.steps.find((each) => each.id === id);
  if (!step) return null;
  const [before, after] = walkPlan({ ...plan, steps: [alone(step)] }, family, undefined, today).moments;
  return before && after?.walked ? { step, before, after, walked: after.walked } : null;
}
