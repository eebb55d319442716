// Measures the budgets of docs/architecture.md and prints medians. Not a test: it never fails.
import { spawn } from "node:child_process";
import { mkdirSync } from "node:fs";
import { join } from "node:path";
import { importBundled } from "./bundle.mjs";
import { build, chromium, install, root } from "./setup.mjs";

install();
build();
mkdirSync(join(root, ".cache"), { recursive: true });
const core = await importBundled("scripts/bench/core.ts", "bench-core");
await core.run();

const port = "3189";
const server = spawn(process.execPath, ["scripts/serve.mjs"], { stdio: "ignore", env: { ...process.env, PORT: port } });
try {
  const { measurePage } = await import("./bench/page.mjs");
  await measurePage(`http://localhost:${port}`, chromium(), { large: core.growingPlan(), clinic: core.growingClinic });
} finally {
  server.kill();
}
