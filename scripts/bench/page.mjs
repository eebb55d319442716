// What the browser loads first, and what a change costs on a full box.
import { chromium as playwright } from "@playwright/test";

const median = (numbers) => [...numbers].sort((a, b) => a - b)[Math.floor(numbers.length / 2)];

async function ready(address) {
  for (let i = 0; i < 100; i += 1) {
    try {
      if ((await fetch(address)).ok) return;
    } catch {
      // Not yet.
    }
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  throw new Error(`${address} does not answer.`);
}

/** Frames a second that the browser drew during a drag over a box of 12 bays, from its own trace. */
async function measureFrames(browser, address) {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(address);
  await page.waitForURL(/\/plan\//);
  await page.getByRole("heading", { name: "Shelf" }).waitFor();
  for (let i = 6; i < 12; i += 1) await page.getByRole("button", { name: "One bay more" }).click();
  await page.getByLabel("Drives to add").fill("7 × 12 TB");
  await page.getByRole("button", { name: "Add", exact: true }).click();
  for (const drive of (await page.getByRole("list", { name: "Drives on the shelf" }).getByRole("listitem").all()).slice(
    1,
  ))
    await drive.getByRole("button").first().click();
  await page.getByRole("button", { name: "Add to a pool" }).click();
  await page
    .getByRole("menuitem", { name: /Images, 4 drives/ })
    .first()
    .click();
  const chip = await page.getByRole("button", { name: /^12.TB drive in bay 10\b/ }).boundingBox();
  await page.mouse.move(chip.x + 10, chip.y + 10);
  await page.mouse.down();
  await page.mouse.move(chip.x - 20, chip.y + 10);
  await browser.startTracing(page, {
    categories: ["devtools.timeline", "disabled-by-default-devtools.timeline.frame", "cc", "benchmark"],
  });
  const until = Date.now() + 3000;
  for (let i = 0; Date.now() < until; i += 1) {
    await page.mouse.move(chip.x - 20 - 150 * (1 + Math.sin(i / 9)), chip.y + 5 + (i % 7));
  }
  const trace = JSON.parse((await browser.stopTracing()).toString());
  await page.mouse.up();
  const drawn = trace.traceEvents
    .filter((event) => event.name === "DrawFrame")
    .map((event) => event.ts / 1000)
    .sort((a, b) => a - b);
  const seconds = (drawn.at(-1) - drawn[0]) / 1000;
  const rate = (drawn.length - 1) / seconds;
  console.log(
    `${"frames a second of a drag, 12 bays (from the browser's trace)".padEnd(64)} ` +
      `${rate.toFixed(0).padStart(8)}      budget 50${rate < 50 ? "   UNDER" : ""}`,
  );
  await page.close();
}

async function openFile(page, address, plan) {
  await page.goto(address);
  await page.waitForURL(/\/plan\//);
  await page.getByRole("heading", { name: "Shelf" }).waitFor();
  const before = page.url();
  const file = { name: "plan.cortijo.json", mimeType: "application/json", buffer: Buffer.from(JSON.stringify(plan)) };
  await page.getByLabel("Plan file").setInputFiles(file);
  await page.waitForURL((url) => url.href !== before);
}

/** Frames a second while a plan is played on a box of 24 bays; and of a smaller one how long its mishaps take. */
async function measureRehearsing(browser, address, { large, six }) {
  const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  await openFile(page, address, large);
  await page.getByRole("link", { name: "Rehearse" }).click();
  await page.getByText("1 h a second").click();
  await page.getByRole("button", { name: "Play", exact: true }).click();
  const rate = await page.evaluate(
    () =>
      new Promise((resolve) => {
        let [frames, begun] = [0, performance.now()];
        const count = (now) => {
          frames += 1;
          if (now - begun < 4000) requestAnimationFrame(count);
          else resolve((frames / (now - begun)) * 1000);
        };
        requestAnimationFrame(count);
      }),
  );
  console.log(
    `${"frames a second while a plan is played, 24 bays".padEnd(68)} ${rate.toFixed(0).padStart(8)}      ` +
      `budget 60${rate < 59 ? "   UNDER" : ""}`,
  );
  await page.close();
  await measureTrials(browser, address, six);
}

/** How long it takes to try all single mishaps of a plan, and all pairs, in the browser on all cores. */
export async function measureTrials(browser, address, six) {
  const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  await openFile(page, address, six);
  await page.getByRole("link", { name: "Rehearse" }).click();
  await page.getByRole("button", { name: "Play", exact: true }).waitFor();
  const until = async (act, what) => {
    const begun = performance.now();
    await act();
    await page.getByText(what).waitFor({ timeout: 300_000 });
    return (performance.now() - begun) / 1000;
  };
  const singles = await until(() => page.getByLabel("Try all mishaps").check(), /^\S+ mishaps tried/);
  await page
    .getByText(/tried, and none|No mishap costs data|Change the plan/)
    .first()
    .waitFor({ timeout: 60_000 });
  await page.getByText("Changes of the plan are tried").waitFor({ state: "detached", timeout: 60_000 });
  const pairs = await until(() => page.getByRole("button", { name: "Try all pairs" }).click(), /^\S+ pairs tried/);
  for (const [what, seconds, budget] of [
    ["all single mishaps of six bays and eight steps, both answers", singles, 3],
    [`all ${(await page.getByText(/^\S+ pairs tried/).textContent()).split(" ")[0]} pairs of drive mishaps`, pairs, 60],
  ])
    console.log(
      `${what.padEnd(68)} ${seconds.toFixed(1).padStart(8)} s    budget ${budget} s${seconds > budget ? "   OVER" : ""}`,
    );
  await page.close();
}

/** A task this long holds up whoever presses something, in milliseconds; what goes beyond counts. */
const LONG_TASK = 50;
/** What the browser's trace calls the running and compiling of scripts. */
const SCRIPT = new Set([
  "EvaluateScript",
  "FunctionCall",
  "RunMicrotasks",
  "v8.compile",
  "v8.callFunction",
  "FireAnimationFrame",
]);

/** For how long the tasks of a page's main thread held it up in all, and by how much of that its scripts did (ms). */
function heldUp(events) {
  const mains = new Set(
    events
      .filter((event) => event.name === "thread_name" && event.args.name === "CrRendererMain")
      .map((event) => `${event.pid} ${event.tid}`),
  );
  const inMain = events.filter((event) => event.ph === "X" && mains.has(`${event.pid} ${event.tid}`));
  const scripts = inMain.filter((event) => SCRIPT.has(event.name)).sort((a, b) => a.ts - b.ts || b.dur - a.dur);
  let all = 0;
  let script = 0;
  for (const task of inMain.filter((event) => event.name.endsWith("RunTask") && event.dur / 1000 > LONG_TASK)) {
    let until = task.ts;
    let ran = 0;
    for (const { pid, tid, ts, dur } of scripts) {
      if (pid !== task.pid || tid !== task.tid || ts < until || ts + dur > task.ts + task.dur) continue;
      ran += dur / 1000;
      until = ts + dur;
    }
    all += task.dur / 1000 - LONG_TASK;
    script += Math.max(0, ran - LONG_TASK);
  }
  return { all, script };
}

/**
 * A first visit on a slow phone (processor four times slower, 1.6 Mbit/s, 150 ms), throttled through the browser's
 * protocol: when the largest content was painted, for how long scripts held the page up, and for how long all tasks
 * did, with what the browser itself does to lay out and paint; medians of five visits.
 */
export async function measureSlowPhone(browser, address) {
  const visits = [];
  for (let n = 0; n < 5; n += 1) {
    const context = await browser.newContext({ viewport: { width: 390, height: 844 }, deviceScaleFactor: 3 });
    const page = await context.newPage();
    await page.addInitScript(() => {
      window.largest = 0;
      new PerformanceObserver((list) => {
        for (const entry of list.getEntries()) window.largest = entry.startTime;
      }).observe({ type: "largest-contentful-paint", buffered: true });
    });
    const protocol = await context.newCDPSession(page);
    await protocol.send("Network.enable");
    const speed = (1.6e6 * 0.9) / 8;
    const network = { offline: false, latency: 150, downloadThroughput: speed, uploadThroughput: speed };
    await protocol.send("Network.emulateNetworkConditions", network);
    await protocol.send("Emulation.setCPUThrottlingRate", { rate: 4 });
    await browser.startTracing(page, { categories: ["devtools.timeline", "toplevel", "v8"] });
    await page.goto(address, { waitUntil: "commit" });
    await page.getByRole("heading", { name: "Shelf" }).waitFor({ timeout: 60_000 });
    await page.waitForTimeout(1500);
    const { traceEvents } = JSON.parse((await browser.stopTracing()).toString());
    visits.push({ largest: await page.evaluate(() => window.largest), ...heldUp(traceEvents) });
    await context.close();
  }
  const line = (what, value, budget) =>
    console.log(
      `${what.padEnd(64)} ${value.toFixed(0).padStart(8)} ` +
        `ms${budget ? `   budget ${budget} ms${value > budget ? "   OVER" : ""}` : ""}`,
    );
  line("slow phone, first visit: largest content painted", median(visits.map(({ largest }) => largest)), 2500);
  line("slow phone, first visit: scripts hold the page up for", median(visits.map(({ script }) => script)), 300);
  line("  with the layout and painting of all long tasks", median(visits.map(({ all }) => all)));
  return visits;
}

/**
 * Frames a second while the moment changes with every frame, there and back through a plan, from the browser's own
 * trace: how many of the frames that were due were drawn.
 */
async function measureMoments(browser, address, name, plan) {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(address);
  await page.waitForURL(/\/plan\//);
  await page.getByRole("heading", { name: "Shelf" }).waitFor();
  const before = page.url();
  await page.getByLabel("Plan file").setInputFiles({
    name: "plan.cortijo.json",
    mimeType: "application/json",
    buffer: Buffer.from(JSON.stringify(plan)),
  });
  await page.waitForURL((url) => url.href !== before);
  await page.getByRole("slider", { name: "Moment of the plan" }).focus();
  await page.waitForTimeout(1000);
  await browser.startTracing(page, {
    categories: ["devtools.timeline", "disabled-by-default-devtools.timeline.frame", "cc", "benchmark"],
  });
  await page.evaluate(
    () =>
      new Promise((resolve) => {
        const until = performance.now() + 3000;
        let forward = true;
        const step = (now) => {
          const slider = document.activeElement;
          const at = Number(slider.getAttribute("aria-valuenow"));
          if (at === Number(slider.getAttribute("aria-valuemax"))) forward = false;
          if (at === 0) forward = true;
          slider.dispatchEvent(
            new KeyboardEvent("keydown", { key: forward ? "ArrowRight" : "ArrowLeft", bubbles: true }),
          );
          if (now < until) requestAnimationFrame(step);
          else resolve();
        };
        requestAnimationFrame(step);
      }),
  );
  const trace = JSON.parse((await browser.stopTracing()).toString());
  const drawn = trace.traceEvents
    .filter((event) => event.name === "DrawFrame")
    .map((event) => event.ts / 1000)
    .sort((x, y) => x - y);
  const rate = (drawn.length - 1) / ((drawn.at(-1) - drawn[0]) / 1000);
  console.log(
    `${`frames a second through time, ${name} (trace)`.padEnd(64)} ${rate.toFixed(0).padStart(8)}      budget ` +
      `50${rate < 50 ? "   UNDER" : ""}`,
  );
  await page.close();
}

/** Prints the JavaScript over the wire on the first load, and the script time of a drag step with 24 bays. */
export async function measurePage(address, executablePath, growing) {
  await ready(address);
  const browser = await playwright.launch({
    executablePath,
    args: ["--no-sandbox", "--disable-gpu", "--disable-background-networking"],
  });
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    const client = await page.context().newCDPSession(page);
    await client.send("Network.enable");
    const scripts = new Map();
    client.on("Network.responseReceived", ({ requestId, type }) => type === "Script" && scripts.set(requestId, 0));
    client.on(
      "Network.loadingFinished",
      ({ requestId, encodedDataLength }) => scripts.has(requestId) && scripts.set(requestId, encodedDataLength),
    );
    await page.goto(address);
    await page.waitForURL(/\/plan\//);
    await page.getByRole("heading", { name: "Shelf" }).waitFor();
    await page.waitForLoadState("networkidle");
    const kilobytes = [...scripts.values()].reduce((sum, bytes) => sum + bytes, 0) / 1024;
    console.log(
      `${"JavaScript over the wire on first load".padEnd(64)} ${kilobytes.toFixed(0).padStart(8)} KB   budget ` +
        `250 KB${kilobytes > 250 ? "   OVER" : ""}`,
    );

    for (let i = 6; i < 24; i += 1) await page.getByRole("button", { name: "One bay more" }).click();
    await page.getByLabel("Drives to add").fill("19 × 8 TB");
    await page.getByRole("button", { name: "Add", exact: true }).click();
    for (const drive of await page.getByRole("list", { name: "Drives on the shelf" }).getByRole("listitem").all())
      await drive.getByRole("button").first().click();
    await page.getByRole("button", { name: "Add to a pool" }).click();
    await page
      .getByRole("menuitem", { name: /Images, 4 drives/ })
      .first()
      .click();
    if (process.env.BENCH_SHOT) await page.screenshot({ path: process.env.BENCH_SHOT });
    const chip = await page.getByRole("button", { name: /^8.TB drive in bay 12\b/ }).boundingBox();
    await page.evaluate(() => {
      window.frames_ = [];
      let last = performance.now();
      const tick = (now) => {
        window.frames_.push(now - last);
        last = now;
        requestAnimationFrame(tick);
      };
      requestAnimationFrame(tick);
    });
    await client.send("Performance.enable");
    const scriptTime = async () =>
      (await client.send("Performance.getMetrics")).metrics.find((metric) => metric.name === "ScriptDuration").value;
    await page.mouse.move(chip.x + 10, chip.y + 10);
    await page.mouse.down();
    await page.mouse.move(chip.x - 20, chip.y + 10);
    const steps = 60;
    const costs = [];
    for (let i = 0; i < steps; i += 1) {
      const from = await scriptTime();
      await page.mouse.move(chip.x - 20 - i * 8, chip.y + 5 + (i % 5));
      await page.evaluate(() => new Promise(requestAnimationFrame));
      costs.push(((await scriptTime()) - from) * 1000);
    }
    await page.mouse.up();
    const cost = median(costs);
    await measureSlowPhone(browser, address);
    await measureFrames(browser, address);
    await measureRehearsing(browser, address, growing);
    await measureMoments(browser, address, "the clinic's plan", growing.clinic);
    await measureMoments(browser, address, "24 drives, 12 bands, 30 steps", growing.large);
    console.log(
      `${"script for one step of a drag, 24 bays".padEnd(64)} ${cost.toFixed(2).padStart(8)} ms   budget 16 ` +
        `ms${cost > 16 ? "   OVER" : ""}`,
    );
  } finally {
    await browser.close();
  }
}
