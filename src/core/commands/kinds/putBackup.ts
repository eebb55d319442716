import { MOST_BACKUPS } from "../../document/limits";
import type { CommandModule } from "../commandModule";
import { freeId } from "../../records/freeId";
import { refuse } from "../refusal";

/** A backup added, or changed where its id is there. */
export const putBackup: CommandModule<"put-backup"> = {
  apply: (plan, command) => {
    const given = command.backup;
    const backups = (plan.backups ??= []);
    if (given.id === undefined && backups.length >= MOST_BACKUPS) refuse(`A plan has at most ${MOST_BACKUPS} backups.`);
    const old = backups.findIndex((backup) => backup.id === given.id);
    if (given.id !== undefined && old < 0) refuse("That backup is no longer in the plan.");
    const known = new Set(plan.dataSets?.map((set) => set.id));
    if (given.dataSets.some((set) => !known.has(set)))
      refuse("A data set that the backup holds is no longer in the plan.");
    const taken = backups.map((backup) => backup.id);
    backups.splice(old < 0 ? backups.length : old, 1, { ...given, id: given.id ?? freeId("b", taken) });
  },
  describe: ({ backup }) => `${backup.id === undefined ? "added" : "changed"} the backup “${backup.name}”`,
};
