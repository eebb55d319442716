import { MOST_DATA_SETS } from "../../document/limits";
import type { Plan } from "../../document/plan";
import type { CommandModule } from "../commandModule";
import { holdingOthers } from "../dataOfPlan";
import { freeId } from "../../records/freeId";
import { refuse } from "../refusal";

const hasVolume = (plan: Plan, id: string | undefined): boolean =>
  plan.pools.some((pool) => pool.volumes.some((volume) => volume.id === id));

/** A data set added, or changed where its id is there. What its volume holds changes with it. */
export const putDataSet: CommandModule<"put-data-set"> = {
  apply: (plan, command) => {
    const given = command.dataSet;
    if (given.drive !== undefined ? !plan.drives.some(({ id }) => id === given.drive) : !hasVolume(plan, given.volume))
      refuse(`That ${given.drive === undefined ? "volume" : "drive"} is no longer in the plan.`);
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
