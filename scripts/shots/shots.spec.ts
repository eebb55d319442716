import { growingClinic } from "../../src/core/document/samples/growingClinic";
import { expect, test, type Page } from "@playwright/test";
import { oddDrives } from "../../src/core/document/samples/oddDrives";
import { coveredClinic } from "../../src/core/document/samples/coveredClinic";
import { printBox } from "../../src/exchange/boxText/printBox";
import { boxOf, firstVisit, openPlan } from "../../tests/e2e/workbench";

const to = (name: string) => ({ path: `docs/screenshots/${name}.png` });

/** What comes last on the workbench: the curve in its free bay. */
const whole = (page: Page) => page.getByRole("slider", { name: /What if a drive came/ }).waitFor();

async function visit(page: Page) {
  await firstVisit(page);
  await whole(page);
}

test("workbench", async ({ page }) => {
  await visit(page);
  await page.waitForTimeout(400);
  await page.screenshot(to("workbench"));
});

test("workbench, dark, with two drives failed", async ({ page }) => {
  await page.emulateMedia({ colorScheme: "dark" });
  await visit(page);
  await page.getByRole("button", { name: /What if the 4\sTB drive in bay 2/ }).click();
  await page.mouse.move(5, 795);
  await page.waitForTimeout(300);
  await page.screenshot(to("workbench-dark-what-if"));
});

test("how the box is now: a drive is gone, and a rebuild is under way", async ({ page }) => {
  const plan = boxOf("Rowing club", "linux-host", "raid5", [4, 4, 4, 4], [8]);
  const pools = plan.pools.map((pool) => ({ ...pool, name: "Club" }));
  const drives = plan.drives.map((drive) => (drive.id === "d3" ? { ...drive, state: "failed" as const } : drive));
  const box = {
    ...plan,
    pools,
    drives: drives.map((drive) => (drive.id === "x1" ? { ...drive, place: { bay: 5 } } : drive)),
  };
  await openPlan(page, { ...plan, pools });
  await page.getByRole("link", { name: "Box now" }).click();
  const work = { group: "g1", kind: "recovery" as const, done: 0.316, minutesLeft: 290, by: "x1", drive: "d3" };
  const texts = printBox(box, [work]);
  await page.getByLabel("What the box prints").fill(texts.blockDevices + texts.arrays);
  await page.getByRole("button", { name: "Read it", exact: true }).click();
  await page.waitForTimeout(600);
  await page.screenshot(to("box-now"));
});

test("a practice box: a drive has died while the pool is widened", async ({ page }) => {
  await page.clock.setFixedTime(new Date("2026-12-01T09:00Z"));
  await firstVisit(page);
  await page.getByRole("link", { name: "Cortijo" }).click();
  await page.getByRole("button", { name: "Open a copy of the sample: A practice box" }).click();
  const press = (name: string) => page.getByRole("button", { name, exact: true }).click();
  const idle = page.getByText("It has nothing to do.");
  await press("The box has begun");
  await press("Until it has ended");
  await idle.waitFor();
  await press("It has ended");
  await page.getByLabel(/^Last four/).fill("9027");
  await page.keyboard.press("Enter");
  await press("The box has begun");
  for (let n = 0; n < 8; n += 1) await press("An hour on");
  await press("Let something go wrong…");
  await page.getByLabel("Where").selectOption({ index: 1 });
  await press("Let it happen");
  await page.getByText("Look at the box, and read its labels").click();
  await page.mouse.move(5, 795);
  await page.waitForTimeout(400);
  await page.screenshot(to("practice-box"));
});

test("what to do now, when a drive has failed", async ({ page }) => {
  await openPlan(page, oddDrives);
  await page.getByRole("link", { name: "What to do now" }).first().click();
  await page.getByRole("button", { name: "Done, next" }).click();
  await page.waitForTimeout(300);
  await page.screenshot(to("what-to-do-now"));
});

test("compare", async ({ page }) => {
  await visit(page);
  await page.getByRole("link", { name: "Compare" }).click();
  await page.locator(".js-plotly-plot .points path").first().waitFor();
  await page.getByLabel("Usable space at least").fill("11 TB");
  await page.waitForTimeout(600);
  await page.screenshot(to("compare"));
});

test("the next drive", async ({ page }) => {
  await page.emulateMedia({ colorScheme: "dark" });
  await visit(page);
  await page.getByRole("link", { name: "Compare" }).click();
  await page.getByText("The next drive").click();
  await page.getByText("Best:").first().waitFor();
  await page.waitForTimeout(600);
  await page.screenshot(to("next-drive-dark"));
});

test("quick start, and a layout explained", async ({ page }) => {
  await page.goto("/new");
  await page.getByLabel("What drives do you have?").fill("4, 4, 8 and 12 TB");
  await page.getByRole("radio", { name: /^Hybrid box/ }).check();
  await page.getByLabel("What drives do you have?").focus();
  await expect(page.getByRole("list", { name: "Layouts" })).toContainText("one drive safe");
  await page.screenshot(to("quick-start"));
  await page.getByRole("button", { name: "What is it? Hybrid (one)" }).click();
  await page.getByRole("button", { name: /^Fail drive 3/ }).click();
  await page.screenshot(to("layout-explained"));
});

for (const [name, place] of [
  ["data", "data"],
  ["calendar", "calendar"],
  ["document", "print"],
] as const) {
  test(`the covered clinic: ${name}`, async ({ page }) => {
    await openPlan(page, coveredClinic);
    await page.goto(`${page.url()}/${place}`);
    await page.waitForTimeout(2500);
    await page.screenshot(to(name));
  });
}

/** Works that were timed on the clinic's box before the plan begins: what was expected of each, and what it took. */
const timed = (
  [
    ["check", "Check (scrub)", 22.1, 27.4],
    ["self-test", "Test 8 TB in bay 3", 20.2, 21.3],
    ["rebuild", "Replace 4 TB in bay 3 by 8 TB", 12.3, 15.9],
    ["check", "Check (scrub)", 22.1, 28.9],
    ["backup", "Back up", 22.3, 24.1],
    ["rebuild", "Replace 4 TB in bay 4 by 12 TB", 12.3, 21.5],
  ] as const
).map(([work, label, byRates, took], i) => {
  const start = Date.parse("2026-08-03T08:00Z") + i * 9 * 86_400_000;
  const [from, until] = [start, start + took * 3_600_000].map((at) => `${new Date(at).toISOString().slice(0, 16)}Z`);
  const predicted = { low: byRates * 0.65, expected: byRates, high: byRates * 1.6 };
  const done = {
    id: `h${i + 1}`,
    step: `e${i + 1}`,
    kind: "verify",
    label,
    outcome: "done" as const,
    work,
    byRates,
    predicted,
  };
  return { ...done, start: from ?? "", end: until ?? "" };
});
const clinicAtWork = { ...growingClinic, steps: growingClinic.steps.slice(2), history: timed };

test("a step carried out, on a phone", async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await openPlan(page, clinicAtWork);
  await page.getByRole("link", { name: "Carry out" }).click();
  await page.getByRole("textbox", { name: /^Last four/ }).fill("0422");
  await page.getByRole("button", { name: "Is it this one?" }).first().click();
  await page.getByText(/^Of such boxes .* \(between /).waitFor();
  await page.waitForTimeout(400);
  await page.screenshot({ ...to("carry-out-phone"), fullPage: true });
});

test("the logbook, in the dark theme", async ({ page }) => {
  await page.emulateMedia({ colorScheme: "dark" });
  await openPlan(page, clinicAtWork);
  await page.getByRole("link", { name: "Carry out" }).click();
  await page.getByRole("link", { name: "Logbook", exact: true }).click();
  await page.getByRole("heading", { name: "Expected and come" }).waitFor();
  await page.waitForTimeout(2000);
  await page.screenshot(to("logbook-dark"));
});

for (const colorScheme of ["light", "dark"] as const) {
  const ending = colorScheme === "dark" ? "-dark" : "";
  test(`a plan rehearsed, ${colorScheme}: played, and all its mishaps tried`, async ({ page }) => {
    test.setTimeout(90_000);
    await page.emulateMedia({ colorScheme });
    await openPlan(page, coveredClinic);
    await page.getByRole("link", { name: "Rehearse" }).click();
    const strip = page.getByRole("slider", { name: "Time of the rehearsal" });
    await strip.focus();
    for (let i = 0; i < 4; i += 1) await page.keyboard.press("PageUp");
    if (colorScheme === "dark") {
      await page.getByRole("button", { name: /^Let something happen to the .* drive in bay 3: / }).click();
      await page.getByRole("button", { name: "Let it happen" }).click();
      await expect(page.getByRole("heading", { name: /has died\.$/ })).toBeFocused();
    } else {
      await page.getByRole("button", { name: "Play", exact: true }).click();
      await page.waitForTimeout(700);
      await page.getByRole("button", { name: "Pause", exact: true }).click();
    }
    await page.waitForTimeout(300);
    await page.screenshot(to(`rehearse-play${ending}`));
    await page.getByLabel("Try all mishaps").check();
    await expect(page.getByText(/^\d+ mishaps tried/)).toBeVisible({ timeout: 60_000 });
    await expect(page.getByText("Changes of the plan are tried")).toHaveCount(0, { timeout: 60_000 });
    if (ending === "") await page.screenshot(to("rehearse-table"));
  });
}

test("the chance of loss, with what moves it and what helps", async ({ page }) => {
  test.setTimeout(90_000);
  await openPlan(page, coveredClinic);
  await page.getByRole("link", { name: "Chance of loss" }).click();
  await expect(page.getByRole("heading", { name: "What moves it" })).toBeVisible({ timeout: 60_000 });
  await page.waitForTimeout(1500);
  await page.screenshot(to("chance"));
});

test("the best way to grow, with the next purchase first", async ({ page }) => {
  await page.clock.setFixedTime(new Date("2026-12-01T09:00Z"));
  await openPlan(page, { ...coveredClinic, steps: [], currency: "EUR" });
  await page.getByRole("link", { name: "Data", exact: true }).click();
  await page.getByRole("link", { name: "The best way to grow" }).click();
  await page.getByLabel("for the next").selectOption("8 years");
  await expect(page.getByText(/No way costs less|of the best possible|than the best possible/)).toBeVisible({
    timeout: 60_000,
  });
  await page.waitForTimeout(1500);
  await page.screenshot(to("growth"));
});
