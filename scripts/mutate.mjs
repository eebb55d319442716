// Mutation testing of a folder of the core: every line is broken in turn, and a test has to fail. Each mutant is tried
// against the plain tests first, and those that live against all, properties included. Prints a table, and the mutants
// that lived. Ends after 40 minutes at most; what was not tried by then counts as not killed. Incremental: while the
// core and the tests there were stay as they are, the next run takes over what was killed, and tries only the rest.
import { spawn } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { relative } from "node:path";
import { bin, generate, install } from "./setup.mjs";

const MOST_MINUTES = 40;
/** At most this share of a folder may be called equivalent, each with its reason, in tests/equivalentMutants.json. */
const MOST_EQUIVALENT = 0.03;

const folder = process.argv[2];
if (!folder || !existsSync(`src/core/${folder}`)) {
  console.error("npm run mutate <folder>: a folder of src/core, for instance steps.");
  process.exit(2);
}
install();
generate();
mkdirSync(".cache/mutate", { recursive: true });
const end = Date.now() + MOST_MINUTES * 60_000;

/** Where else tests stand that speak of a folder. */
const ALSO = { steps: ["walk"], calendar: ["schedule"], layouts: ["prediction"], data: ["schedule"] };
const DRAWN = "tests/unit/drawn.test.ts";

/** Draws tests into one file, plain ones or all; returns whether there are any. */
function draw(tests) {
  const files = [folder, ...(ALSO[folder] ?? [])].flatMap((name) =>
    readdirSync(`src/core/${name}`)
      .filter((file) => file.endsWith(".test.ts"))
      .map((file) => `src/core/${name}/${file}`),
  );
  const drawn = files.filter((file) => tests === "all" || !readFileSync(file, "utf8").includes("fast-check"));
  writeFileSync(DRAWN, drawn.map((file) => `import "../../${file.replace(/\.ts$/, "")}";\n`).join(""));
  return drawn.length > 0;
}

/** One run over all mutants, or over some of them; the mutants, "Skipped" where the time was over. */
async function run(tests, some = []) {
  if (!draw(tests)) return [];
  const report = `.cache/mutate/${folder}.${tests}.jsonl`;
  rmSync(report, { force: true });
  const options = some.length > 0 ? ["--mutate", some.map(rangeOf).join(",")] : [];
  const child = spawn(bin("stryker"), ["run", "stryker.config.mjs", ...options], {
    stdio: "inherit",
    env: { ...process.env, MUTATE_FOLDER: folder, MUTATE_TESTS: tests, MUTATE_REPORT: report },
  });
  const timer = setTimeout(() => child.kill("SIGINT"), Math.max(1, end - Date.now()));
  await new Promise((resolve) => child.on("close", resolve));
  clearTimeout(timer);
  rmSync(DRAWN, { force: true });
  return existsSync(report) ? found(readFileSync(report, "utf8")) : [];
}

/** A place as the command line of mutation testing wants it: lines from 1, columns from 0. */
const rangeOf = ({ fileName, start, end: to }) =>
  `${relative(process.cwd(), fileName)}:${start.line}:${start.column - 1}-${to.line}:${to.column - 1}`;

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

const nameOf = (mutant) => `${rangeOf(mutant)} ${mutant.mutatorName} ${mutant.replacement}`;

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
    const text = (sources.get(path)[mutant.start.line - 1] ?? "").trim();
    const is = (each) => path.endsWith(each.file) && each.line === text && each.mutator === mutant.mutatorName;
    const kind = KILLED.has(mutant.status) ? "killed" : excused.some(is) ? "equivalent" : "lived";
    const name = path.replace(`src/core/${folder}/`, "");
    if (!rows.has(name)) rows.set(name, { killed: 0, lived: 0, equivalent: 0 });
    rows.get(name)[kind] += 1;
    all[kind] += 1;
    if (kind === "lived")
      lived.push(`${path}:${mutant.start.line} ${mutant.mutatorName} → ${mutant.replacement} (${mutant.status})`);
  }
  const score = ({ killed, lived: left }) => `${((100 * killed) / Math.max(1, killed + left)).toFixed(1)} %`;
  for (const line of lived) console.log(line);
  console.log(`\n${"file".padEnd(36)}  killed   lived   score`);
  for (const [name, row] of [...rows, ["all", all]])
    console.log(
      `${name.padEnd(36)}  ${String(row.killed).padStart(6)}  ${String(row.lived).padStart(6)}  ` +
        `${score(row).padStart(7)}`,
    );
  const share = all.equivalent / Math.max(1, all.killed + all.lived + all.equivalent);
  console.log(`${all.equivalent} are called equivalent (${(100 * share).toFixed(1)} %, at most 3 %).`);
  return share <= MOST_EQUIVALENT;
}

const LIVES = new Set(["Survived", "NoCoverage"]);
const MEMORY = `.cache/mutate/${folder}.memory.json`;
const hashOf = (file) => createHash("sha1").update(readFileSync(file)).digest("hex");
const isTest = (file) => file.endsWith(".test.ts") || file.includes("/testing/");
const hashes = (of) =>
  Object.fromEntries(
    readdirSync("src/core", { recursive: true })
      .map((file) => `src/core/${file}`)
      .filter((file) => file.endsWith(".ts") && of(file))
      .sort()
      .map((file) => [file, hashOf(file)]),
  );
const now = { sources: hashes((file) => !isTest(file)), tests: hashes(isTest) };

/** What an earlier run found, as far as it still holds: the core is the same, and no test has changed or gone. */
function remembered() {
  if (!existsSync(MEMORY)) return new Map();
  const { sources, tests, mutants } = JSON.parse(readFileSync(MEMORY, "utf8"));
  const same =
    JSON.stringify(sources) === JSON.stringify(now.sources) &&
    Object.entries(tests).every(([file, hash]) => now.tests[file] === hash);
  return new Map(same ? mutants.map((mutant) => [nameOf(mutant), mutant]) : []);
}

const mutants = remembered();
if (mutants.size > 0)
  console.log(`${mutants.size} mutants are known from an earlier run; those killed are taken over.`);
const isOpen = ({ status }) => LIVES.has(status) || status === "Skipped";
/** Those that are still to be tried: what an earlier run had no time for, before what lived. */
const open = () => {
  const all = [...mutants.values()].filter(isOpen);
  const skipped = all.filter(({ status }) => status === "Skipped");
  return skipped.length > 0 ? skipped : all;
};
/** Tries those that are still open, or all where none is known; what was not tried stays as it was. */
async function tryThem(tests) {
  if (mutants.size > 0 && open().length === 0) return;
  const known = new Set(mutants.keys());
  for (const mutant of await run(tests, known.size > 0 ? open() : []))
    if (
      known.size === 0 ||
      (known.has(nameOf(mutant)) && isOpen(mutants.get(nameOf(mutant))) && mutant.status !== "Skipped")
    )
      mutants.set(nameOf(mutant), mutant);
  writeFileSync(MEMORY, JSON.stringify({ ...now, mutants: [...mutants.values()] }));
}
await tryThem("plain");
if (Date.now() < end) await tryThem("all");
if (mutants.size === 0) {
  console.error("No mutant was tried: see what is said above.");
  process.exit(1);
}
const skipped = [...mutants.values()].filter((mutant) => mutant.status === "Skipped").length;
if (Date.now() >= end)
  console.log(`Ended after ${MOST_MINUTES} minutes: ${skipped} were not tried and count as not killed.`);
process.exit(tell([...mutants.values()]) ? 0 : 1);
