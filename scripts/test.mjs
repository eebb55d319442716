// Everything that must hold: types, lint, import rules, unit tests and browser tests, set up from nothing where
// needed. Ends with one line that adds up all runners.
import { spawn, spawnSync } from "node:child_process";
import { existsSync, mkdirSync, readFileSync, rmSync } from "node:fs";
import { bin, build, chromium, fileSystemTools, generate, install } from "./setup.mjs";

const total = { passed: 0, failed: 0, skipped: 0 };

function add(name, { passed, failed, skipped = 0 }) {
  total.passed += passed;
  total.failed += failed;
  total.skipped += skipped;
  console.log(`-- ${name}: ${passed} passed, ${failed} failed${skipped > 0 ? `, ${skipped} skipped` : ""}\n`);
}

/** Runs a command and keeps what it prints. */
const printed = (command, args) =>
  new Promise((resolve) => {
    const child = spawn(command, args, { stdio: ["ignore", "pipe", "pipe"] });
    const lines = [];
    for (const stream of [child.stdout, child.stderr]) stream.on("data", (piece) => lines.push(piece));
    child.on("error", (error) => resolve({ status: 1, text: String(error) }));
    child.on("close", (status) => resolve({ status, text: Buffer.concat(lines).toString() }));
  });

/** Checks that either hold or not count as one each; they run side by side, since each uses one core only. */
async function check(all) {
  const made = await Promise.all(all.map(async ([name, command, args]) => [name, await printed(command, args)]));
  for (const [name, { status, text }] of made) {
    console.log(`== ${name}\n${text}`);
    add(name, status === 0 ? { passed: 1, failed: 0 } : { passed: 0, failed: 1 });
  }
}

/** A runner that writes a report; one that ends badly without any counts as one failure. */
function runner(name, command, args, report, read, env = {}) {
  console.log(`== ${name}`);
  rmSync(report, { force: true });
  const { status } = spawnSync(command, args, { stdio: "inherit", env: { ...process.env, ...env } });
  const counts = existsSync(report) ? read(JSON.parse(readFileSync(report, "utf8"))) : { passed: 0, failed: 0 };
  if (status !== 0 && counts.failed === 0) counts.failed = 1;
  add(name, counts);
}

function prepare(name, work) {
  try {
    work();
    return true;
  } catch (error) {
    console.error(error instanceof Error ? error.message : error);
    add(name, { passed: 0, failed: 1 });
    return false;
  }
}

if (prepare("set-up", () => (install(), generate()))) {
  mkdirSync(".cache", { recursive: true });
  const built = prepare("build", build);
  await check([
    ["types", bin("tsc"), ["--noEmit"]],
    ["format", bin("prettier"), ["--check", ".", "--log-level", "warn"]],
    ["lint", bin("eslint"), [".", "--max-warnings", "0"]],
    ["import rules", bin("depcruise"), ["src", "--config", ".dependency-cruiser.cjs"]],
  ]);
  runner("unit tests", bin("jest"), ["--json", "--outputFile=.cache/jest.json"], ".cache/jest.json", (report) => ({
    passed: report.numPassedTests,
    failed: report.numFailedTests + report.numRuntimeErrorTestSuites,
    skipped: report.numPendingTests,
  }));
  fileSystemTools();
  runner(
    "system tests",
    bin("jest"),
    ["--config", "jest.system.config.mjs", "--json", "--outputFile=.cache/system.json"],
    ".cache/system.json",
    (report) => ({
      passed: report.numPassedTests,
      failed: report.numFailedTests + report.numRuntimeErrorTestSuites,
      skipped: report.numPendingTests,
    }),
  );
  if (built && prepare("browser", () => (process.env.CHROMIUM = chromium()))) {
    runner(
      "browser tests",
      bin("playwright"),
      ["test"],
      ".cache/playwright.json",
      ({ stats }) => ({ passed: stats.expected + stats.flaky, failed: stats.unexpected, skipped: stats.skipped }),
      {
        E2E_REPORT: ".cache/playwright.json",
      },
    );
  }
}

console.log(`${total.passed} passed, ${total.failed} failed${total.skipped > 0 ? `, ${total.skipped} skipped` : ""}`);
process.exit(total.failed > 0 ? 1 : 0);
