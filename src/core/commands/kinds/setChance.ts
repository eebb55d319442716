import type { CommandModule } from "../commandModule";

/** What the chance of loss is worked out with, where it is not as usual. */
export const setChance: CommandModule<"set-chance"> = {
  apply: (plan, { chance }) => {
    if (chance && Object.keys(chance).length > 0) plan.chance = chance;
    else delete plan.chance;
  },
  describe: ({ chance }) =>
    chance === null ? "let the chance of loss be by the usual inputs" : "changed what the chance of loss is by",
};
