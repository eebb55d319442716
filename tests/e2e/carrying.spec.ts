import { readFileSync, writeFileSync } from "node:fs";
import AxeBuilder from "@axe-core/playwright";
import { expect, test, type Page } from "@playwright/test";
import type { Plan, StepBody } from "../../src/core/document/plan";
import { axeFindsNothing } from "./axe";
import { boxOf, openPlan, saved, tabTo } from "./workbench";

/** Four 4 TB drives of double parity, three 8 TB drives on the shelf, and eight steps. */
function shed(): Plan {
  const volume = { id: "v1", name: "Photos", bytes: 7.9e12, fileSystem: "ext4" as const, usedBytes: 3e12 };
  const plan = boxOf("Allotment club", "classic-raid", "raid6", [4, 4, 4, 4], [8, 8, 8], { volumes: [volume] });
  const steps: StepBody[] = [
    { kind: "back-up", pool: "p1", to: "the box at home" },
    { kind: "test-drive", drive: "x1" },
    { kind: "replace-drive", drive: "d1", by: "x1", how: "pulled" },
    { kind: "verify", pool: "p1" },
    { kind: "replace-drive", drive: "d2", by: "x2", how: "pulled" },
    { kind: "grow-volume", pool: "p1", volume: "v1", bytes: 7.95e12 },
    { kind: "grow-file-system", pool: "p1", volume: "v1" },
    { kind: "verify", pool: "p1" },
  ];
  const rules = {
    set: "classic-raid" as const,
    overrides: { swapping: "hot-swap" as const, replacing: "pull-first" as const },
  };
  return {
    ...plan,
    box: { ...plan.box, rules },
    steps: steps.map((step, i) => ({ ...step, id: `s${i + 1}` })) as Plan["steps"],
  };
}

/** The plan as the browser keeps it: the one that was changed last. */
async function kept(page: Page): Promise<Plan> {
  await saved(page);
  return page.evaluate(
    () =>
      new Promise<Plan>((resolve, reject) => {
        const open = indexedDB.open("cortijo");
        open.onerror = () => reject(new Error("no database"));
        open.onsuccess = () => {
          const all = open.result.transaction("plans").objectStore("plans").getAll();
          all.onerror = () => reject(new Error("no plans"));
          all.onsuccess = () => {
            const plans = all.result as { changedAt: number; document: Plan }[];
            const last = plans.reduce((a, b) => (b.changedAt > a.changedAt ? b : a));
            open.result.close();
            resolve(last.document);
          };
        };
      }),
  );
}

const clock = (page: Page, at: string) => page.clock.setFixedTime(new Date(at));
const press = (page: Page, name: string) => page.getByRole("button", { name, exact: true }).click();
const heading = (page: Page, name: RegExp) => page.getByRole("heading", { level: 2, name });

async function confirmDrive(page: Page, label: RegExp, serial: string) {
  const field = page.getByRole("textbox", { name: label }).first();
  await field.fill(serial);
  await field.press("Enter");
  await expect(page.getByText("This is the drive.").first()).toBeVisible();
}

async function carry(page: Page, plan: Plan) {
  await openPlan(page, plan);
  await page.getByRole("link", { name: "Carry out" }).click();
  await expect(page.getByRole("heading", { level: 1, name: "Carry out" })).toBeVisible();
}

const HOUR = 3_600_000;
const instant = (at: number) => new Date(at).toISOString();

/** Does what the card says, whatever the step: confirms its drives, begins it, and ends it eleven hours later. */
async function workOff(page: Page, begun: number) {
  const before = (await kept(page)).steps.length;
  await clock(page, instant(begun));
  const card = page.getByRole("article").first();
  await expect(card.getByRole("heading", { level: 2 })).toBeVisible();
  const fields = card.getByRole("textbox", { name: /serial number/ });
  for (const drive of await card.getByText(/serial number CAL-/).allTextContents()) {
    await fields.first().fill(/CAL-\w+/.exec(drive)?.[0] ?? "");
    await fields.first().press("Enter");
    await expect(card.getByText("This is the drive.").first()).toBeVisible();
  }
  const begins = card.getByRole("button", { name: "The box has begun" });
  if ((await begins.count()) > 0) {
    await begins.click();
    await expect(card.getByRole("heading", { name: "It is under way" })).toBeVisible();
    await clock(page, instant(begun + 11 * HOUR));
    await card.getByRole("button", { name: "It has ended" }).click();
  } else await card.getByRole("button", { name: "Done", exact: true }).click();
  await expect.poll(async () => (await kept(page)).steps.length).toBe(before - 1);
}

test.describe("on a phone", () => {
  test.use({ viewport: { width: 390, height: 844 }, timezoneId: "UTC" });

  test("a plan of eight steps carried out, with two corrections and a drive that fails on the way", async ({
    page,
  }) => {
    test.setTimeout(120_000);
    await clock(page, "2026-12-01T09:00Z");
    await carry(page, shed());
    // 1: the backup, begun an hour ago.
    await press(page, "The box has begun");
    await expect(page.getByText(/Begun Tue 1 Dec, 09:00/)).toBeVisible();
    await press(page, "Correct");
    await page.getByLabel("It was begun").fill("2026-12-01T08:00");
    await expect(page.getByText(/Begun Tue 1 Dec, 08:00/)).toBeVisible();
    await clock(page, "2026-12-01T16:30Z");
    await press(page, "It has ended");
    // 2: the test; the focus is on what comes next.
    await expect(heading(page, /^Test 8\sTB/)).toBeFocused();
    await press(page, "The box has begun");
    await clock(page, "2026-12-02T10:00Z");
    await press(page, "It has ended");
    // 3: a drive replaced; both have to be the right ones.
    await expect(heading(page, /^Replace 4\sTB in bay 1/)).toBeFocused();
    await confirmDrive(page, /^Last four/, "AL-D1");
    await confirmDrive(page, /^Last four/, "cal-x1");
    await page.getByRole("checkbox", { name: /Pull the 4\sTB drive/ }).check();
    await press(page, "The box has begun");
    await clock(page, "2026-12-02T16:00Z");
    await page.getByLabel("How far it is, in %").fill("40");
    await press(page, "Note it");
    await expect(page.getByText(/by 40 % at Wed 2 Dec, 16:00/)).toBeVisible();
    // Another drive fails meanwhile: what to do, and back.
    await page.getByText("The box says something else").click();
    await page.getByRole("link", { name: /A drive has failed/ }).click();
    await page.getByLabel("A light is red or out, or it names a bay").selectOption("3");
    await press(page, "Find it by its bay");
    await press(page, "It has failed");
    await expect(page.getByRole("heading", { name: "One thing after the other" })).toBeVisible();
    await page.getByRole("link", { name: "Carry out" }).click();
    await expect(page.getByRole("link", { name: "What to do now" })).toBeVisible();
    // Closed and opened again it goes on where it was.
    await page.reload();
    await expect(page.getByText(/by 40 % at Wed 2 Dec, 16:00/)).toBeVisible();
    await clock(page, "2026-12-03T01:00Z");
    await page.getByLabel(/^What it shows/).fill("7.28");
    await press(page, "It has ended");
    // The failed one is replaced: its steps come first now.
    await page.getByRole("link", { name: "What to do now" }).click();
    await page.getByRole("button", { name: /^Put \d+ steps? into the plan$/ }).click();
    await expect(page.getByText("Its steps are in the plan.")).toBeVisible();
    await page.getByRole("link", { name: "Carry out" }).click();
    for (let begun = Date.parse("2026-12-03T02:00Z"); (await kept(page)).steps.length > 0; begun += 20 * HOUR)
      await workOff(page, begun);
    await expect(page.getByRole("heading", { name: "All of it is done" })).toBeFocused();
    // A second correction, of what is history.
    await page.getByRole("link", { name: "Logbook", exact: true }).click();
    await page.getByRole("button", { name: /^Correct: Test 8\sTB/ }).click();
    await page.getByLabel("Ended").fill("2026-12-02T07:30");
    await press(page, "Save");
    await expect(page.getByRole("dialog")).toHaveCount(0);
    const end = await kept(page);
    // The drives: those of bays 1 and 2 replaced by larger ones; the failed one by that which the first had freed.
    const at = (bay: number) => end.drives.find(({ place }) => "bay" in place && place.bay === bay);
    expect([1, 2, 3, 4].map((bay) => at(bay)?.serial)).toEqual(["CAL-X1", "CAL-X2", "CAL-D1", "CAL-D4"]);
    expect([1, 3].map((bay) => at(bay)?.bytes)).toEqual([8001563222016, 4000787030016]);
    expect(end.pools[0]?.groups[0]?.drives).toEqual([at(1)?.id, at(2)?.id, at(3)?.id, "d4"]);
    expect(end.pools[0]?.volumes[0]?.bytes).toBe(7.95e12);
    expect(end.drives.find(({ id }) => id === "d3")).toMatchObject({ state: "failed" });
    // The dates.
    const entry = (step: string) => end.history?.find((each) => each.step === step);
    expect(entry("s1")).toMatchObject({ start: "2026-12-01T08:00Z", end: "2026-12-01T16:30Z", outcome: "done" });
    expect(entry("s2")).toMatchObject({ start: "2026-12-01T16:30Z", end: "2026-12-02T07:30Z" });
    expect(entry("s3")).toMatchObject({
      start: "2026-12-02T10:00Z",
      end: "2026-12-03T01:00Z",
      shown: { seen: "7.28" },
    });
    expect(end.history?.filter(({ outcome }) => outcome === "done").length).toBeGreaterThanOrEqual(9);
    expect(end.log?.[0]).toMatchObject({ what: "failure", text: expect.stringMatching(/bay 3/) });
    expect(end.steps).toEqual([]);
    expect(end.underWay).toBeUndefined();
  });
});

const replacing = (): Plan => ({ ...shed(), steps: shed().steps.slice(2, 3) });

test("a wrong serial number stops an erasure, and the press that would begin it leads to the drive", async ({
  page,
}) => {
  await carry(page, replacing());
  const first = page.getByRole("textbox", { name: /^Last four/ }).first();
  await first.fill("AL-D2");
  await first.press("Enter");
  await expect(page.getByRole("alert").filter({ hasText: /^Stop: that is the 4\sTB drive in bay 2/ })).toBeVisible();
  await press(page, "The box has begun");
  await expect(page.getByText("First make sure of the drive")).toBeVisible();
  await expect(first).toBeFocused();
  await confirmDrive(page, /^Last four/, "CAL-D1");
  await expect(page.getByText("This is the drive.")).toBeFocused();
  // The one that is overwritten has to be checked too.
  await press(page, "The box has begun");
  await expect(page.getByRole("textbox", { name: /^Last four/ })).toBeFocused();
  expect((await kept(page)).underWay).toBeUndefined();
  await confirmDrive(page, /^Last four/, "AL-X1");
  await press(page, "The box has begun");
  await expect(page.getByRole("heading", { name: "It is under way" })).toBeFocused();
  expect((await kept(page)).underWay).toMatchObject([{ step: "s3" }]);
  // Begun by mistake: undone.
  await press(page, "Undo");
  await expect(page.getByRole("button", { name: "The box has begun" })).toBeVisible();
  expect((await kept(page)).underWay).toBeUndefined();
});

test("another size than predicted is explained, and the plan set right at a press", async ({ page }) => {
  await carry(page, { ...shed(), steps: shed().steps.slice(5, 6) });
  const seen = page.getByLabel(/^What it shows/);
  await seen.fill("7.95");
  await expect(page.getByText(/The plan expects 7\.23.TiB for the volume Photos/)).toBeVisible();
  await expect(page.getByText("It is the same size: your box counts in thousands (TB).")).toBeVisible();
  await press(page, "Let the plan show sizes so");
  await expect(page.getByText("7.95, as predicted.")).toBeVisible();
  await press(page, "Done");
  await expect(page.getByRole("heading", { name: "All of it is done" })).toBeFocused();
  expect((await kept(page)).history).toMatchObject([{ shown: { seen: "7.95", predicted: 7.95e12 } }]);
});

test("a step that stops stays in the plan, and why is in the logbook", async ({ page }) => {
  await carry(page, { ...shed(), steps: shed().steps.slice(3, 4) });
  await press(page, "The box has begun");
  await page.getByText("The box says something else").click();
  await page.getByLabel("Why it stopped, or was refused").fill("The power was cut");
  await press(page, "Record that it has stopped");
  await expect(page.getByRole("button", { name: "The box has begun" })).toBeVisible();
  await expect(page.getByText(/stopped: The power was cut/)).toBeVisible();
  expect((await kept(page)).steps).toHaveLength(1);
});

test("the sheet, ticked without network and brought back", async ({ page, context }, info) => {
  await carry(page, { ...shed(), steps: shed().steps.slice(0, 3) });
  const [download] = await Promise.all([page.waitForEvent("download"), press(page, "Save the sheet")]);
  const file = info.outputPath("sheet.html");
  writeFileSync(file, readFileSync(await download.path()));
  const sheet = await context.newPage();
  await context.setOffline(true);
  await sheet.goto(`file://${file}`);
  await expect(sheet.getByRole("heading", { level: 1 })).toHaveText("Allotment club: at the box");
  const steps = sheet.getByRole("region");
  await steps.nth(0).getByRole("checkbox").first().check();
  await steps.nth(0).getByLabel("Begun").fill("2026-12-01T08:00");
  await steps.nth(0).getByLabel("Ended").fill("2026-12-01T17:20");
  await steps.nth(1).getByRole("button", { name: "Now" }).first().click();
  // It keeps them over being closed.
  await sheet.reload();
  await expect(steps.nth(0).getByRole("checkbox").first()).toBeChecked();
  await expect(steps.nth(0).getByLabel("Ended")).toHaveValue("2026-12-01T17:20");
  expect((await new AxeBuilder({ page: sheet }).analyze()).violations).toEqual([]);
  const line = await sheet.getByLabel("The line").inputValue();
  await sheet.close();
  await context.setOffline(false);
  await press(page, "Bring a sheet back");
  await page.getByLabel("The line of the sheet").fill("something else");
  await press(page, "Record it");
  await expect(page.getByRole("alert").filter({ hasText: "This is not the line of a sheet." })).toBeVisible();
  await page.getByLabel("The line of the sheet").fill(line);
  await press(page, "Record it");
  await expect(page.getByRole("dialog")).toHaveCount(0);
  const zone = await page.evaluate(() => new Date("2026-12-01T08:00").toISOString().slice(0, 16) + "Z");
  const plan = await kept(page);
  expect(plan.history).toMatchObject([{ step: "s1", start: zone, outcome: "done" }]);
  expect(Date.parse(plan.history![0]!.end) - Date.parse(zone)).toBe((9 * 60 + 20) * 60_000);
  expect(plan.underWay).toMatchObject([{ step: "s2" }]);
  // Brought back once more it changes nothing.
  await press(page, "Bring a sheet back");
  await page.getByLabel("The line of the sheet").fill(line);
  await press(page, "Record it");
  await expect(
    page.getByRole("alert").filter({ hasText: "All that is on this sheet is recorded already." }),
  ).toBeVisible();
});

test("the logbook: an entry added, counted and not; saved as CSV, taken out and brought back", async ({ page }) => {
  await carry(page, shed());
  await page.getByRole("link", { name: "Logbook", exact: true }).click();
  await expect(page.getByText("Nothing is in the logbook yet.")).toBeVisible();
  await press(page, "Add an entry");
  await page.getByLabel("Begun").fill("2026-11-01T08:00");
  await page.getByLabel("Ended").fill("2026-11-01T22:00");
  await page.getByLabel("Words about it").fill("=monthly");
  await press(page, "Save");
  const table = page.getByRole("region", { name: "What your box’s own times say" });
  await expect(table.getByRole("row", { name: /Checks \(scrubs\) 1\.\d\d/ })).toBeVisible();
  const plan = await kept(page);
  expect(plan.log).toMatchObject([{ what: "check", text: "Shared: =monthly" }]);
  // The check in the plan is now expected to take about as long.
  await page.getByRole("checkbox", { name: /Reckon with .*Checks/ }).uncheck();
  await expect(table.getByRole("row", { name: /Checks \(scrubs\) as they are/ })).toBeVisible();
  const [download] = await Promise.all([page.waitForEvent("download"), press(page, "Save as CSV")]);
  const csv = readFileSync(await download.path(), "utf8");
  expect(csv).toMatch(/,check,Shared: =monthly,/);
  // Taken out, it is brought back from the file.
  await page.getByRole("button", { name: /^Correct: Check / }).click();
  await press(page, "Remove");
  await expect(page.getByText("Nothing is in the logbook yet.")).toBeVisible();
  await press(page, "Bring in CSV");
  await page.getByLabel("The logbook as CSV").fill(csv.replace(",check,", ",dancing,"));
  await press(page, "Add its entries");
  await expect(page.getByText(/Entry 1: "dancing" is nothing/)).toBeVisible();
  await page.getByLabel("The logbook as CSV").fill(csv);
  await press(page, "Add its entries");
  await expect(page.getByText(/took 14 hours/)).toBeVisible();
});

test("by keyboard only: checked, begun, ended, said", async ({ page }) => {
  await carry(page, { ...shed(), steps: shed().steps.slice(1, 4) });
  await tabTo(page, /^The box has begun$/);
  await page.keyboard.press("Enter");
  await expect(page.getByRole("status").filter({ hasText: /^Begun: Test/ })).toBeAttached();
  await tabTo(page, /^It has ended$/);
  await page.keyboard.press("Enter");
  await expect(page.getByRole("status").filter({ hasText: /^Done: Test/ })).toBeAttached();
  await expect(heading(page, /^Replace/)).toBeFocused();
  await tabTo(page, /^Last four/);
  await page.keyboard.type("CAL-D1");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("status").filter({ hasText: /^Yes: this is/ })).toBeAttached();
});

test("axe finds nothing on carrying out and on the logbook", async ({ page }) => {
  const entry = {
    id: "l1",
    what: "check" as const,
    text: "Shared",
    start: "2026-11-01T08:00Z",
    end: "2026-11-01T22:00Z",
  };
  const predicted = { low: 6, expected: 9.3, high: 15 };
  await carry(page, { ...replacing(), log: [{ ...entry, byRates: 9.3, predicted }] });
  await axeFindsNothing(page);
  for (const serial of ["CAL-D1", "CAL-X1"]) await confirmDrive(page, /^Last four/, serial);
  await press(page, "The box has begun");
  await page.getByText("The box says something else").click();
  await axeFindsNothing(page);
  await page.getByRole("link", { name: "Logbook", exact: true }).click();
  await expect(page.getByRole("heading", { name: "Expected and come" })).toBeVisible();
  await axeFindsNothing(page);
});
