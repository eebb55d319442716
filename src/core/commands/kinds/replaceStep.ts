import type { CommandModule } from "../commandModule";
import { placeOfStep } from "../lookUp";
import { putSteps } from "../putSteps";

/** Several steps in the place of one. */
export const replaceStep: CommandModule<"replace-step"> = {
  apply: (plan, command) => {
    putSteps(plan, placeOfStep(plan, command.step), 1, command.by);
  },
  describe: ({ by }) => `split a step into ${by.length}`,
};
