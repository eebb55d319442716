// Mutation testing of a folder of the core: every line is broken in turn, and a test has to fail. Prints a table, and
// the mutants that lived. Incremental: what has not changed since the last run is taken over. Ends after 40 minutes at
// most; mutants that were not tried by then count as not killed.
import { spawn } from "node:child_process";
import { existsSync, mkdirSync, readFileSync } from "node:fs";
import { bin, generate, install } from "./setup.mjs";

const MOST_MINUTES = 40;
/** At most this share of a folder may be called equivalent, each with its reason, in tests/equivalentMutants.json. */
const MOST_EQUIVALENT = 0.03;

const [folder, ...options] = process.argv.slice(2);
if (!folder || !existsSync(`src/core/${folder}`)) {
  console.error("npm run mutate <folder>: a folder of src/core, for instance steps.");
  process.exit(2);
}
install();
generate();
mkdirSync(".cache/mutate", { recursive: true });
const report = `.cache/mutate/${folder}.report.json`;
const child = spawn(bin("stryker"), ["run", "stryker.config.mjs", ...options], {
  stdio: "inherit",
  env: { ...process.env, MUTATE_FOLDER: folder },
});
const timer = setTimeout(() => child.kill("SIGINT"), MOST_MINUTES * 60_000);
child.on("close", (code, signal) => {
  clearTimeout(timer);
  if (signal !== null || !existsSync(report)) {
    console.error(
      `Ended before all mutants were tried (after ${MOST_MINUTES} minutes at most): run it again to go on.`,
    );
    process.exit(1);
  }
  process.exit(tell(JSON.parse(readFileSync(report, "utf8"))) ? (code ?? 0) : 1);
});

const KILLED = new Set(["Killed", "Timeout", "RuntimeError"]);
const NO_MUTANT = new Set(["CompileError", "Ignored"]);

function equivalents() {
  const file = "tests/equivalentMutants.json";
  return existsSync(file) ? JSON.parse(readFileSync(file, "utf8")) : [];
}

/** Prints the table and what lived; returns whether no more are called equivalent than may be. */
function tell({ files }) {
  const excused = equivalents();
  const rows = [];
  const lived = [];
  const all = { killed: 0, lived: 0, equivalent: 0 };
  for (const [path, { source, mutants }] of Object.entries(files)) {
    const lines = source.split("\n");
    const row = { killed: 0, lived: 0, equivalent: 0 };
    for (const mutant of mutants) {
      if (NO_MUTANT.has(mutant.status)) continue;
      const { line } = mutant.location.start;
      const text = (lines[line - 1] ?? "").trim();
      const is = (each) => path.endsWith(each.file) && each.line === text && each.mutator === mutant.mutatorName;
      const kind = KILLED.has(mutant.status) ? "killed" : excused.some(is) ? "equivalent" : "lived";
      row[kind] += 1;
      all[kind] += 1;
      if (kind === "lived")
        lived.push(`${path}:${line} ${mutant.mutatorName} → ${mutant.replacement} (${mutant.status})`);
    }
    rows.push([path.replace(`src/core/${folder}/`, ""), row]);
  }
  const score = ({ killed, lived: left }) => `${((100 * killed) / Math.max(1, killed + left)).toFixed(1)} %`;
  for (const line of lived) console.log(line);
  console.log(`\n${"file".padEnd(36)}  killed   lived   score`);
  for (const [name, row] of [...rows, ["all", all]])
    console.log(
      `${name.padEnd(36)}  ${String(row.killed).padStart(6)}  ${String(row.lived).padStart(6)}  ${score(row).padStart(7)}`,
    );
  const share = all.equivalent / Math.max(1, all.killed + all.lived + all.equivalent);
  console.log(`${all.equivalent} are called equivalent (${(100 * share).toFixed(1)} %, at most 3 %).`);
  return share <= MOST_EQUIVALENT;
}
