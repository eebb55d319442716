// Kills the browser in mid-edit and looks, when it is opened again, whether an edit that was shown as saved is lost.
import { chromium as browsers, type Page } from "@playwright/test";
import { spawn } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";

const FLAGS = "--headless --no-sandbox --disable-gpu --no-first-run --disable-background-networking --disable-sync";

async function open(path: string, profile: string) {
  const browser = spawn(
    path,
    [...FLAGS.split(" "), `--user-data-dir=${profile}`, "--remote-debugging-port=0", "about:blank"],
    { stdio: ["ignore", "ignore", "pipe"], detached: true },
  );
  const address = await new Promise<string>((resolve) => {
    let text = "";
    browser.stderr.on("data", (data: Buffer) => {
      text += data;
      const found = /DevTools listening on (ws:\S+)/.exec(text);
      if (found?.[1]) resolve(found[1]);
    });
  });
  const connected = await browsers.connectOverCDP(address);
  const context = connected.contexts()[0]!;
  return { page: context.pages()[0] ?? (await context.newPage()), kill: () => process.kill(-browser.pid!, "SIGKILL") };
}

/** The name that the page shows, and whether it says that all is saved. */
const shown = (page: Page) =>
  page.evaluate(() => ({
    name: document.querySelector("h1")?.textContent ?? "",
    typed: document.querySelector<HTMLInputElement>("header input")?.value ?? "",
    saved: [...document.querySelectorAll("[role=status]")].some((element) => element.textContent === "Saved"),
  }));
const numberIn = (name: string) => Number(/^Edit (\d+)$/.exec(name)?.[1] ?? 0);

/**
 * @param random gives numbers from 0 to below 1
 * @returns how often the browser was killed, and how often an edit that was shown as saved was gone
 */
export async function kills(
  base: string,
  path: string,
  count: number,
  random: () => number,
  onDone?: (done: number, lost: number) => void,
) {
  const profile = mkdtempSync(join(tmpdir(), "cortijo-kills-"));
  let [lost, saved, edits] = [0, 0, 0];
  let address: string | null = null;
  for (let round = 0; round < count; round += 1) {
    const { page, kill } = await open(path, profile);
    await page.goto(address ?? base);
    const field = page.getByLabel("Name of the plan");
    await field.waitFor();
    address = page.url();
    const found = numberIn((await shown(page)).name);
    if (found < saved) lost += 1;
    saved = found;
    // Edits one after the other, until the browser dies among them.
    const until = Date.now() + 50 + random() * 700;
    while (Date.now() < until) {
      edits += 1;
      await field.fill(`Edit ${edits}`);
      if (random() < 0.6) await field.press("Enter");
      const now = await shown(page);
      if (now.saved) saved = Math.max(saved, numberIn(now.typed));
    }
    kill();
    await new Promise((resolve) => setTimeout(resolve, 80));
    onDone?.(round + 1, lost);
  }
  rmSync(profile, { recursive: true, force: true });
  return { kills: count, edits, lost };
}
