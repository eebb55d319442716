// What mutation testing has found so far, written down mutant by mutant, so that a run that is ended by its time limit
// can still say what was tried and what was not.
import { declareClassPlugin, PluginKind } from "@stryker-mutator/api/plugin";
import { appendFileSync, writeFileSync } from "node:fs";

const file = process.env.MUTATE_REPORT ?? ".cache/mutate/found.jsonl";
const write = (entry) => appendFileSync(file, `${JSON.stringify(entry)}\n`);

class LineReporter {
  onMutationTestingPlanReady({ mutantPlans }) {
    writeFileSync(file, "");
    for (const { mutant } of mutantPlans) write({ planned: pick({ ...mutant, location: fromOne(mutant.location) }) });
  }
  onMutantTested(result) {
    write({ tested: pick(result) });
  }
}

/** What is planned counts lines and columns from 0, what was tested from 1. */
const fromOne = ({ start, end }) => ({ start: oneOn(start), end: oneOn(end) });
const oneOn = ({ line, column }) => ({ line: line + 1, column: column + 1 });

const pick = ({ id, fileName, location, mutatorName, replacement, status }) => ({
  id,
  fileName,
  start: location.start,
  end: location.end,
  mutatorName,
  replacement,
  status,
});

export const strykerPlugins = [declareClassPlugin(PluginKind.Reporter, "lines", LineReporter)];
