import { addCommands } from "./addedCommands";
import { addLogEntries } from "./kinds/addLogEntries";
import { correctRecord } from "./kinds/correctRecord";
import { endStep, stopStep } from "./kinds/endStep";
import { recordSteps } from "./kinds/recordSteps";
import { removeRecords } from "./kinds/removeRecords";
import { setRatesOnly } from "./kinds/setRatesOnly";
import { startStep } from "./kinds/startStep";
import { takeProgress } from "./kinds/takeProgress";
import { takeReading } from "./kinds/takeReading";

// What records work at the box has to know what the box is after it. Whoever does such a command imports this file; it
// stands apart, since the first page does none and need not load it.
addCommands({
  "start-step": startStep,
  "take-progress": takeProgress,
  "end-step": endStep,
  "stop-step": stopStep,
  "record-steps": recordSteps,
  "take-reading": takeReading,
  "correct-record": correctRecord,
  "add-log-entries": addLogEntries,
  "remove-records": removeRecords,
  "set-rates-only": setRatesOnly,
});
