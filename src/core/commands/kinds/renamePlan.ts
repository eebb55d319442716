import type { CommandModule } from "../commandModule";

/** Another name for the plan. */
export const renamePlan: CommandModule<"rename-plan"> = {
  apply: (plan, command) => {
    plan.name = command.name;
  },
  describe: ({ name }) => `renamed the plan to “${name}”`,
};
