import type { Step } from "../../document/plan";
import type { CommandModule } from "../commandModule";
import { placeOfStep } from "../lookUp";

/** What of a step can be changed without its becoming another. */
const LEAVES_IT_AS_IT_IS = new Set(["disabled", "together", "notBefore"]);

/** What of a step can be edited; a field set to null is taken away. */
export const editStep: CommandModule<"edit-step"> = {
  apply: (plan, command) => {
    const step = plan.steps[placeOfStep(plan, command.step)];
    if (!step) return;
    const { lifted: _lifted, ...rest } = command.changes;
    // What was said in writing was said of the step as it then was.
    if (Object.keys(rest).some((key) => !LEAVES_IT_AS_IT_IS.has(key))) delete step.lifted;
    for (const [key, value] of Object.entries(command.changes)) {
      if (value === null) delete step[key as keyof Step];
      else if (value !== undefined) Object.assign(step, { [key]: value });
    }
  },
  describe: () => "changed a step",
};
