import { MOST_DATA_SETS } from "../../document/limits";
import type { CommandModule } from "../commandModule";
import { holdingOthers } from "../dataOfPlan";
import { freeId } from "../freeId";
import { refuse } from "../refusal";

/** A data set added, or changed where its id is there. What its volume holds changes with it. */
export const putDataSet: CommandModule<"put-data-set"> = {
  apply: (plan, command) => {
    const given = command.dataSet;
    if (!plan.pools.some((pool) => pool.volumes.some((volume) => volume.id === given.volume)))
      refuse("That volume is no longer in the plan.");
    const sets = (plan.dataSets ??= []);
    if (given.id === undefined && sets.length >= MOST_DATA_SETS)
      refuse(`A plan has at most ${MOST_DATA_SETS} data sets.`);
    const old = sets.findIndex((set) => set.id === given.id);
    if (given.id !== undefined && old < 0) refuse("That data set is no longer in the plan.");
    const taken = sets.map((set) => set.id);
    holdingOthers(plan, () => {
      sets.splice(old < 0 ? sets.length : old, 1, { ...given, id: given.id ?? freeId("s", taken) });
    });
  },
  describe: ({ dataSet }) => `${dataSet.id === undefined ? "added" : "changed"} the data set “${dataSet.name}”`,
};
