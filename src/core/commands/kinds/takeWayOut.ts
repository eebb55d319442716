import type { CommandModule } from "../commandModule";

/** The plan begins with the box as a rehearsal has it just after its first mishap, and goes on as was played. */
export const takeWayOut: CommandModule<"take-way-out"> = {
  apply: (plan, { as }) => {
    Object.assign(plan, as);
  },
  describe: () => "put the way out of a rehearsal into the plan",
};
