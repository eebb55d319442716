import { freeRecordId } from "../../logbook/records";
import { oneOrMany } from "../../words/counted";
import type { CommandModule } from "../commandModule";

/** Things that happened outside the plan; the log stays in the order in which they began. */
export const addLogEntries: CommandModule<"add-log-entries"> = {
  apply: (plan, { entries }) => {
    const log = [...(plan.log ?? [])];
    for (const entry of entries) log.push({ ...entry, id: freeRecordId("l", log) });
    plan.log = log.sort((a, b) => Date.parse(a.start) - Date.parse(b.start));
  },
  describe: ({ entries }) => `added ${oneOrMany(entries.length, "an entry", "entries")} to the logbook`,
};
