import type { CommandModule } from "../commandModule";
import { holdingOthers } from "../dataOfPlan";
import { need } from "../refusal";

/** A data set taken away, and what is used of its volume with it. */
export const removeDataSet: CommandModule<"remove-data-set"> = {
  apply: (plan, command) => {
    need(
      plan.dataSets?.find((set) => set.id === command.dataSet),
      "That data set",
    );
    holdingOthers(plan, () => {
      plan.dataSets = plan.dataSets?.filter((set) => set.id !== command.dataSet) ?? [];
    });
  },
  describe: () => "removed a data set",
};
