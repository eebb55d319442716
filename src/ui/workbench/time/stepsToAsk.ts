import type { Plan, Step, StepBody } from "@/core/document/plan";
import type { Act } from "@/core/steps/propose";
import { stepLabel } from "@/core/steps/stepLabel";
import type { Walk } from "@/core/walk/moment";
import { today } from "../../today";
import { actTrial } from "./actTrial";

/**
 * The act to ask about where something is to be known of steps; null for those of which nothing is, which can be
 * planned at once.
 *
 * @param plan the box at the moment
 * @param title what they are called where they were chosen; else their labels, one after the other
 */
export function stepsToAsk(walked: Walk, at: number, plan: Plan, steps: StepBody[], title?: string): Act | null {
  const { blocks, warnings, notes } = actTrial(walked, at, steps, walked.family, today());
  if (blocks.length + warnings.length + notes.length === 0) return null;
  const labels = steps.map((step) => stepLabel({ ...step, id: "new" } as Step, plan, walked.family));
  return { kind: "steps", title: title ?? labels.join(", then "), steps };
}
