import { current } from "immer";
import type { Step, StepBody } from "../../document/plan";
import type { CommandModule } from "../commandModule";
import { placeOfStep } from "../lookUp";
import { putSteps } from "../putSteps";

/** The same step once more, behind itself. */
export const duplicateStep: CommandModule<"duplicate-step"> = {
  apply: (plan, command) => {
    const at = placeOfStep(plan, command.step);
    const { id: _id, lifted: _lifted, ...body } = current(plan.steps[at] as Step);
    putSteps(plan, at + 1, 0, [body as StepBody]);
  },
  describe: () => "repeated a step",
};
