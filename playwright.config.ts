import { defineConfig } from "@playwright/test";

const port = Number(process.env.E2E_PORT ?? 3187);

export default defineConfig({
  testDir: "tests/e2e",
  outputDir: ".cache/test-results",
  fullyParallel: true,
  workers: 2,
  timeout: 60_000,
  // A busy machine needs longer to show the same thing.
  expect: { timeout: 15_000 },
  retries: 0,
  reporter: process.env.E2E_REPORT ? [["line"], ["json", { outputFile: process.env.E2E_REPORT }]] : [["list"]],
  use: {
    baseURL: `http://localhost:${port}`,
    viewport: { width: 1280, height: 800 },
    locale: "en-GB",
    timezoneId: "Europe/Madrid",
    // Each test loads what it asks for; what is kept for offline has tests of its own.
    serviceWorkers: "block",
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? "/usr/bin/chromium",
      args: [
        "--no-sandbox",
        "--disable-gpu",
        "--disable-quic",
        "--no-first-run",
        "--disable-background-networking",
        "--disable-component-update",
        "--disable-sync",
      ],
    },
  },
  webServer: {
    command: "node scripts/serve.mjs",
    url: `http://localhost:${port}/schema/plan-1.json`,
    env: { NEXT_TELEMETRY_DISABLED: "1", PORT: String(port) },
    reuseExistingServer: false,
    stdout: "ignore",
  },
});
