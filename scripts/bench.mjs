// Measures the budgets of docs/architecture.md and prints medians. Not a test: it never fails.
import { build as bundle } from "esbuild";
import { spawn } from "node:child_process";
import { mkdirSync } from "node:fs";
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import { build, chromium, install, root } from "./setup.mjs";

install();
build();
mkdirSync(join(root, ".cache"), { recursive: true });
const outfile = join(root, ".cache", "bench-core.mjs");
await bundle({
  entryPoints: [join(root, "scripts/bench/core.ts")],
  outfile,
  bundle: true,
  platform: "node",
  format: "esm",
  tsconfig: join(root, "tsconfig.json"),
  logLevel: "error",
});
const core = await import(pathToFileURL(outfile).href);
await core.run();

const port = "3189";
const server = spawn(process.execPath, ["scripts/serve.mjs"], { stdio: "ignore", env: { ...process.env, PORT: port } });
try {
  const { measurePage } = await import("./bench/page.mjs");
  await measurePage(`http://localhost:${port}`, chromium(), { large: core.growingPlan(), clinic: core.growingClinic });
} finally {
  server.kill();
}
