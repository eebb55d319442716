import { expect, test, type Locator, type Page } from "@playwright/test";
import type { Plan, Step } from "../../src/core/document/plan";
import { away } from "../../src/core/testing/dataPlan";
import { axeFindsNothing } from "./axe";
import { boxOf, openPlan, saved, tabTo } from "./workbench";

/** Four drives of which one is replaced by a larger one; what is stored is at home as well, once a week. */
function growing(how: "pulled" | "attached", more: Partial<Plan> = {}): Plan {
  const volume = { id: "v1", name: "Files", bytes: 11e12, fileSystem: "btrfs" as const, usedBytes: 9e12 };
  const plan = boxOf("Rowing club", "classic-raid", "raid5", [4, 4, 4, 4], [8], { name: "Club", volumes: [volume] });
  const step: Step = { id: "s1", kind: "replace-drive", drive: "d1", by: "x1", how };
  return {
    ...plan,
    box: { ...plan.box, rules: { set: "classic-raid", overrides: { replacing: "old-attached" } } },
    dataSets: [{ id: "set1", name: "Photographs", volume: "v1", bytes: 8e12, worth: "precious" }],
    backups: [{ ...away, lastVerified: new Date().toISOString().slice(0, 10), dataSets: ["set1"] }],
    steps: [step],
    ...more,
  };
}

const press = (page: Page, name: string | RegExp) => page.getByRole("button", { name, exact: true }).click();
const strip = (page: Page) => page.getByRole("slider", { name: "Time of the rehearsal" });
const endOf = (page: Page) => page.getByRole("list", { name: "What became of your data" });

async function rehearse(page: Page, plan: Plan) {
  await openPlan(page, plan);
  await page.getByRole("link", { name: "Rehearse" }).click();
  await expect(page.getByText("Nothing has begun yet.")).toBeVisible();
}

/** Lets the drive in a bay die half-way through the plan. */
async function dies(page: Page, bay: number) {
  await strip(page).focus();
  for (let i = 0; i < 4; i += 1) await page.keyboard.press("PageUp");
  await press(page, new RegExp(`^Let something happen to the .* drive in bay ${bay}: `));
  await press(page, "Let it happen");
}

test("a second drive dies while one is pulled: all is lost, and comes back from the backup; kept, and played again", async ({
  page,
}) => {
  await rehearse(page, growing("pulled"));
  await dies(page, 2);
  const asks = page.getByRole("heading", { name: /^The drive .* bay 2 \(CAL-D2\) has died\.$/ });
  await expect(asks).toBeFocused();
  await expect(page.getByRole("region", { name: "Is it safe?" })).toContainText("Nothing on Club can be read now");
  await expect(page.getByText("stands still, the pool cannot be read")).toBeVisible();
  await press(page, "Do what is advised");
  await strip(page).press("End");
  await expect(page.getByRole("heading", { name: "Lost on the box, and back from backups" })).toBeFocused();
  await expect(endOf(page)).toContainText(
    "Photographs: all of it could not be read any more. It comes back from Box at home, up to 7 days old.",
  );

  // Taken back, it is as if it had not happened; what was done about it goes with it.
  await press(page, "Take the mishap back");
  await strip(page).press("End");
  await expect(page.getByRole("heading", { name: "Nothing is lost" })).toBeVisible();
  await press(page, "Begin again");
  await dies(page, 2);
  await press(page, "Go on with the plan");
  await strip(page).press("End");
  await expect(page.getByRole("heading", { name: "Lost on the box, and back from backups" })).toBeVisible();

  await page.getByLabel("Name of this rehearsal").fill("The bad night");
  await press(page, "Keep it with the plan");
  await saved(page);
  await page.reload();
  await press(page, "Play The bad night");
  await strip(page).press("End");
  await expect(endOf(page)).toContainText("It comes back from Box at home, up to 7 days old.");
  await press(page, "Remove The bad night");
  await expect(page.getByText("removed the rehearsal “The bad night”", { exact: false }).first()).toBeVisible();
});

test("with the old drive in its bay nothing is lost, and the way out is a plan of its own", async ({ page }) => {
  await rehearse(page, growing("attached"));
  await dies(page, 2);
  await expect(page.getByRole("region", { name: "Is it safe?" })).toContainText("Nothing is lost");
  await press(page, "Do what is advised");
  await strip(page).press("End");
  await expect(page.getByRole("heading", { name: "Nothing is lost" })).toBeFocused();
  await expect(endOf(page)).toContainText("Photographs: all of it is there, as it was written.");
  // Into the plan itself, and taken back.
  await press(page, "Put it into this plan");
  await expect(page.getByText("put the way out of a rehearsal into the plan", { exact: false }).first()).toBeVisible();
  await expect(page.getByText("Nothing has begun yet.")).toBeVisible();
  await expect(page.getByRole("button", { name: /drive in bay 2: dead$/ })).toBeVisible();
  await press(page, "Undo");
  await expect(page.getByRole("button", { name: /drive in bay 2: rests$/ })).toBeVisible();
  await dies(page, 2);
  await press(page, "Do what is advised");
  await strip(page).press("End");
  await press(page, "Make a plan of it");
  await page.getByRole("link", { name: "Open it" }).click();
  await expect(page.getByLabel("Name of the plan")).toHaveValue(/^Rowing club: A drive dies/);
  await expect(page.getByText("Nothing is lost; one drive has failed.").first()).toBeAttached();
});

test("a case that a plan file brings is played as it was; a drive of it that is not there any more harms nothing", async ({
  page,
}) => {
  const strikes = (of: string) => [{ kind: "drive-dies" as const, of, step: "s1", hours: 3 }];
  const rehearsals: Plan["rehearsals"] = [
    { id: "r1", name: "Second drive", seed: 7, strikes: strikes("d3"), answers: ["advised"], otherwise: "advised" },
    { id: "r2", name: "Nobody knows it", seed: 7, strikes: strikes("d9"), answers: [], otherwise: "advised" },
  ];
  await rehearse(page, growing("pulled", { rehearsals }));
  await press(page, "Play Second drive");
  await strip(page).press("End");
  await expect(endOf(page)).toContainText("It comes back from Box at home, up to 7 days old.");
  await press(page, "Play Nobody knows it");
  await strip(page).press("End");
  await expect(page.getByRole("heading", { name: "Nothing is lost" })).toBeVisible();
});

test("a mishap is dropped on a drive, and one on time for later", async ({ page }) => {
  await rehearse(page, growing("attached"));
  const drop = async (what: string, onto: Locator, share: number) => {
    const [from, to] = [
      await page.getByRole("button", { name: what, exact: true }).boundingBox(),
      await onto.boundingBox(),
    ];
    if (!from || !to) throw new Error("Nothing to drag, or nowhere to drag it.");
    await page.mouse.move(from.x + 8, from.y + 8);
    await page.mouse.down();
    await page.mouse.move(from.x + 24, from.y - 12, { steps: 4 });
    await page.mouse.move(to.x + to.width * share, to.y + to.height / 2, { steps: 8 });
    await page.mouse.up();
  };
  await drop("Power cut", strip(page), 0.5);
  await expect(strip(page).getByTitle("The power is cut")).toBeVisible();
  await drop("Dies", page.getByRole("button", { name: /^Let something happen to the .* drive in bay 3: / }), 0.5);
  await expect(page.getByRole("heading", { name: /^The drive .* bay 3 \(CAL-D3\) has died\.$/ })).toBeFocused();
  await press(page, "Take the mishap back");
  await strip(page).press("End");
  await expect(page.getByRole("heading", { name: "The power was cut, and is back." })).toBeFocused();
});

test("all mishaps are tried, the worst is played from its cell, a change that helps is taken, and trying is stopped", async ({
  page,
}) => {
  test.setTimeout(90_000);
  await rehearse(page, growing("pulled"));
  await page.getByLabel("Try all mishaps").check();
  const summary = page.getByText(
    /^\d+ mishaps tried: nothing is lost in \d+\. Photographs: in \d+ back from Box at home/,
  );
  await expect(summary).toBeVisible({ timeout: 30_000 });
  const table = page.getByRole("table");
  // The sentence says what the table says.
  const [, all, whole] = /^(\d+) mishaps tried: nothing is lost in (\d+)/.exec((await summary.textContent()) ?? "")!;
  expect(Number(all)).toBeGreaterThan(Number(whole));
  await table
    .getByRole("button", { name: /^back, up to 7 days old/ })
    .first()
    .click();
  await expect(page.getByRole("dialog")).toContainText("Photographs: back from Box at home, up to 7 days old.");
  await page.keyboard.press("Escape");

  const row = table.getByRole("row", { name: /^1\. Replace/ });
  await row.getByRole("button").nth(0).click();
  await press(page, "Play it");
  await expect(page.getByRole("heading", { name: "Day 1, 00:00" })).toBeFocused();
  await strip(page).press("End");
  await expect(endOf(page)).toContainText("comes back from Box at home");

  await page.getByLabel("Try all mishaps").check();
  await press(page, /^Change the plan: Copy the drive while the old one is in its bay/);
  await expect(page.getByText("changed a step", { exact: false }).first()).toBeVisible();
  // The changed plan is tried at once, and that can be stopped.
  await expect(page.getByRole("button", { name: "Try all pairs" })).toBeVisible({ timeout: 30_000 });
  await expect(summary).toBeVisible();
  await press(page, "Try all pairs");
  const pairs = page.getByRole("region", { name: "Two drives in trouble", exact: true });
  await pairs.getByRole("button", { name: "Cancel" }).click();
  await expect(pairs.getByText(/^Stopped/)).toBeVisible();
  await expect(pairs.getByRole("button", { name: "Try them all" })).toBeFocused();
});

test("by keyboard alone, and axe finds nothing, in light and in dark", async ({ page }) => {
  test.setTimeout(90_000);
  await page.emulateMedia({ reducedMotion: "reduce" });
  await rehearse(page, growing("attached"));
  await tabTo(page, /^Play, state by state$/);
  await page.keyboard.press("Enter");
  await expect(page.getByText(/Replace .* to go$/)).toBeVisible();
  await tabTo(page, /^Pause$/);
  await page.keyboard.press("Enter");
  await tabTo(page, /^Time of the rehearsal$/);
  await page.keyboard.press("Home");
  for (let i = 0; i < 3; i += 1) await page.keyboard.press("PageUp");
  await tabTo(page, /^Cable loose$/);
  await page.keyboard.press("Enter");
  await expect(page.getByRole("dialog")).toBeVisible();
  await page.getByLabel("Where").press("ArrowDown");
  await tabTo(page, /^In how many hours/);
  await page.keyboard.press("Enter");
  const asks = page.getByRole("heading", { name: /is not there any more\.$/ });
  await expect(asks).toBeFocused();
  await axeFindsNothing(page);
  await tabTo(page, /^Put it back in$/);
  await page.keyboard.press("Enter");
  await tabTo(page, /^Time of the rehearsal$/);
  await page.keyboard.press("End");
  await expect(page.getByRole("heading", { name: "Nothing is lost" })).toBeFocused();
  await page.getByLabel("Try all mishaps").check();
  await expect(page.getByRole("button", { name: "Try all pairs" })).toBeVisible({ timeout: 30_000 });
  await axeFindsNothing(page);
});
