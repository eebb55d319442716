// Mutation testing of a folder of the core: every line is broken in turn, and a test has to fail. Prints a table, and
// the mutants that lived. Incremental: what has not changed since the last run is taken over. Ends after 40 minutes at
// most; mutants that were not tried by then count as not killed.
import { spawn } from "node:child_process";
import { existsSync, mkdirSync, readFileSync, rmSync } from "node:fs";
import { relative } from "node:path";
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
const report = `.cache/mutate/${folder}.jsonl`;
rmSync(report, { force: true });
const child = spawn(bin("stryker"), ["run", "stryker.config.mjs", ...options], {
  stdio: "inherit",
  env: { ...process.env, MUTATE_FOLDER: folder, MUTATE_REPORT: report },
});
let isOver = false;
const timer = setTimeout(() => {
  isOver = true;
  child.kill("SIGINT");
}, MOST_MINUTES * 60_000);
child.on("close", (code) => {
  clearTimeout(timer);
  if (!existsSync(report)) {
    console.error("No mutant was tried: see what is said above.");
    process.exit(code || 1);
  }
  if (isOver) console.log(`Ended after ${MOST_MINUTES} minutes; what was not tried counts as not killed.`);
  const isFine = tell(found(readFileSync(report, "utf8")));
  process.exit(isFine && !isOver ? (code ?? 0) : 1);
});

/** The mutants, each with what became of it; "Skipped" where the time was over. */
function found(lines) {
  const mutants = new Map();
  for (const line of lines.split("\n").filter(Boolean)) {
    const { planned, tested } = JSON.parse(line);
    if (planned) mutants.set(planned.id, { ...planned, status: planned.status ?? "Skipped" });
    else mutants.set(tested.id, tested);
  }
  return [...mutants.values()];
}

const KILLED = new Set(["Killed", "Timeout", "RuntimeError"]);
const NO_MUTANT = new Set(["CompileError", "Ignored"]);

function equivalents() {
  const file = "tests/equivalentMutants.json";
  return existsSync(file) ? JSON.parse(readFileSync(file, "utf8")) : [];
}

/** Prints the table and what lived; returns whether no more are called equivalent than may be. */
function tell(mutants) {
  const excused = equivalents();
  const sources = new Map();
  const rows = new Map();
  const lived = [];
  const all = { killed: 0, lived: 0, equivalent: 0 };
  for (const mutant of mutants) {
    if (NO_MUTANT.has(mutant.status)) continue;
    const path = relative(process.cwd(), mutant.fileName);
    if (!sources.has(path)) sources.set(path, readFileSync(path, "utf8").split("\n"));
    const text = (sources.get(path)[mutant.line - 1] ?? "").trim();
    const is = (each) => path.endsWith(each.file) && each.line === text && each.mutator === mutant.mutatorName;
    const kind = KILLED.has(mutant.status) ? "killed" : excused.some(is) ? "equivalent" : "lived";
    const name = path.replace(`src/core/${folder}/`, "");
    if (!rows.has(name)) rows.set(name, { killed: 0, lived: 0, equivalent: 0 });
    rows.get(name)[kind] += 1;
    all[kind] += 1;
    if (kind === "lived")
      lived.push(`${path}:${mutant.line} ${mutant.mutatorName} → ${mutant.replacement} (${mutant.status})`);
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
