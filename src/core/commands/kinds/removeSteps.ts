import { oneOrMany } from "../../words/counted";
import type { CommandModule } from "../commandModule";
import { placeOfStep } from "../lookUp";

/** Steps taken out of the plan. */
export const removeSteps: CommandModule<"remove-steps"> = {
  apply: (plan, command) => {
    command.steps.forEach((id) => placeOfStep(plan, id));
    plan.steps = plan.steps.filter((step) => !command.steps.includes(step.id));
  },
  describe: ({ steps }) => `removed ${oneOrMany(steps.length, "a step", "steps")}`,
};
