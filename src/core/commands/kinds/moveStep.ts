import type { CommandModule } from "../commandModule";
import { placeOfStep } from "../lookUp";

/** A step to another place in the list, counted from 0. */
export const moveStep: CommandModule<"move-step"> = {
  apply: (plan, command) => {
    const [step] = plan.steps.splice(placeOfStep(plan, command.step), 1);
    if (step) plan.steps.splice(Math.max(0, Math.min(plan.steps.length, command.to)), 0, step);
  },
  describe: () => "moved a step",
};
