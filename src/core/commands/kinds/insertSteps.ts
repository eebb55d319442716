import { oneOrMany } from "../../words/counted";
import type { CommandModule } from "../commandModule";
import { placeFor, putSteps } from "../putSteps";

/** Steps before one, after one, or at the end. */
export const insertSteps: CommandModule<"insert-steps"> = {
  apply: (plan, command) => {
    putSteps(plan, placeFor(plan, command), 0, command.steps);
  },
  describe: ({ steps }) => `planned ${oneOrMany(steps.length, "a step", "steps")}`,
};
