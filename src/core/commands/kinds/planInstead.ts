import { oneOrMany } from "../../words/counted";
import type { CommandModule } from "../commandModule";
import { insertSequence } from "./insertSequence";

/** Steps with the drives to buy that they name, in the place of others. */
export const planInstead: CommandModule<"plan-instead"> = {
  apply: (plan, { goes, kind: _kind, ...sequence }) => {
    const going = new Set(goes);
    plan.steps = plan.steps.filter(({ id }) => !going.has(id));
    plan.drives = plan.drives.filter(({ id }) => !going.has(id));
    insertSequence.apply(plan, { kind: "insert-sequence", ...sequence });
  },
  describe: ({ name, steps }) =>
    `planned “${name}” in ${oneOrMany(steps.length, "a step", "steps")}, in the place of those that there were`,
};
