import { oneOrMany } from "../../words/counted";
import type { CommandModule } from "../commandModule";
import { putInLog } from "../putInLog";

/** Things that happened outside the plan. */
export const addLogEntries: CommandModule<"add-log-entries"> = {
  apply: (plan, { entries }) => putInLog(plan, entries),
  describe: ({ entries }) => `added ${oneOrMany(entries.length, "an entry", "entries")} to the logbook`,
};
