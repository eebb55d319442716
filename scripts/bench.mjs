// Measures the budgets of docs/architecture.md and prints medians. Not a test: it never fails.
import { spawn } from "node:child_process";
import { mkdirSync } from "node:fs";
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import { Worker } from "node:worker_threads";
import { bundleFile, importBundled } from "./bundle.mjs";
import { build, chromium, install, root } from "./setup.mjs";

install();
build();
mkdirSync(join(root, ".cache"), { recursive: true });
const core = await importBundled("scripts/bench/core.ts", "bench-core");
await core.run();
await (await importBundled("scripts/bench/bestWay.ts", "bench-best-way")).run();
await measurePractice();

/** Runs of the simulated box a second on two cores, all data of each read back; and the memory that they take. */
async function measurePractice() {
  const file = join(root, ".cache", "bench-practice.mjs");
  await bundleFile("scripts/bench/practice.ts", join(".cache", "bench-practice.mjs"));
  const code =
    `import(${JSON.stringify(pathToFileURL(file).href)}).then(({ practiceRuns }) => { practiceRuns(1000); ` +
    "require('node:worker_threads').parentPort.postMessage(practiceRuns(4000)); });";
  const results = await Promise.all(
    [1, 2].map(
      () =>
        new Promise((resolve, reject) => {
          new Worker(code, { eval: true }).once("message", resolve).once("error", reject);
        }),
    ),
  );
  const rate = results.reduce((sum, { runs }) => sum + runs, 0) / 4;
  const megabytes = process.memoryUsage().rss / 1e6;
  console.log(
    `${"runs of the simulated box a second, two cores, all read back".padEnd(68)} ${rate.toFixed(0).padStart(8)}      ` +
      `at least 2000${rate < 2000 ? "   UNDER" : ""}`,
  );
  console.log(
    `${"memory of the whole program meanwhile".padEnd(68)} ${megabytes.toFixed(0).padStart(8)} MB   ` +
      `at most 300 MB${megabytes > 300 ? "   OVER" : ""}`,
  );
}

const port = "3189";
const server = spawn(process.execPath, ["scripts/serve.mjs"], { stdio: "ignore", env: { ...process.env, PORT: port } });
try {
  const { measurePage } = await import("./bench/page.mjs");
  await measurePage(`http://localhost:${port}`, chromium(), {
    large: core.growingPlan(),
    clinic: core.growingClinic,
    six: (await importBundled("scripts/bench/rehearsal.ts", "bench-rehearsal")).sixOfSix(),
  });
} finally {
  server.kill();
}
