import { oneOrMany } from "../../words/counted";
import type { CommandModule } from "../commandModule";

/** Entries taken out of history and log. */
export const removeRecords: CommandModule<"remove-records"> = {
  apply: (plan, { records }) => {
    const out = new Set(records);
    if (plan.history) plan.history = plan.history.filter(({ id }) => !out.has(id));
    if (plan.log) plan.log = plan.log.filter(({ id }) => !out.has(id));
    if (plan.history?.length === 0) delete plan.history;
    if (plan.log?.length === 0) delete plan.log;
  },
  describe: ({ records }) => `took ${oneOrMany(records.length, "an entry", "entries")} out of the logbook`,
};
