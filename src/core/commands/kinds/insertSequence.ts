import { oneOrMany } from "../../words/counted";
import type { CommandModule } from "../commandModule";
import { refuseTooMany } from "../driveChanges";
import { placeFor, putSteps } from "../putSteps";
import { refuse } from "../refusal";

/** Steps with the drives to buy that they name; the plan gets a calendar if it has none and one is given. */
export const insertSequence: CommandModule<"insert-sequence"> = {
  apply: (plan, command) => {
    refuseTooMany(plan, command.drives.length);
    const ids = new Set(plan.drives.map((drive) => drive.id));
    if (command.drives.some((drive) => ids.has(drive.id)))
      refuse("The plan has changed since: open the ready-made steps again.");
    plan.drives.push(...command.drives.map((drive) => ({ ...drive, place: { shelf: true as const } })));
    if (command.calendar) plan.calendar ??= command.calendar;
    putSteps(plan, placeFor(plan, command), 0, command.steps);
  },
  describe: ({ name, steps }) => `planned “${name}” in ${oneOrMany(steps.length, "a step", "steps")}`,
};
