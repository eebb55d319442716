import type { CommandModule } from "../commandModule";

/** How the box was when it was read; with what was made out of it as the beginning of the plan. */
export const takeReading: CommandModule<"take-reading"> = {
  apply: (plan, { reading, as }) => {
    plan.lastReading = reading;
    if (as) Object.assign(plan, as);
  },
  describe: ({ as }) => (as ? "set the plan to how the box is" : "read the box"),
};
