import { expect, test, type Page } from "@playwright/test";
import type { Plan } from "../../src/core/document/plan";
import { coveredClinic } from "../../src/core/document/samples/coveredClinic";
import { boxWith } from "../../src/core/testing/boxWith";
import { axeFindsNothing } from "./axe";
import { openPlan, tabTo } from "./workbench";

/** The clinic before it has planned anything, with what it stores and how that grows. */
const clinic: Plan = { ...coveredClinic, name: "Clinic", steps: [], currency: "EUR" };

const region = (page: Page, name: string) => page.getByRole("region", { name });
const proof = (page: Page) => page.getByText(/No way costs less, by these prices\./);
const take = (page: Page) => page.getByRole("button", { name: "Make it the plan", exact: true }).first();

async function growthOf(page: Page, plan: Plan): Promise<void> {
  await openPlan(page, plan);
  await page.getByRole("link", { name: "Data", exact: true }).click();
  await page.getByRole("link", { name: "The best way to grow" }).click();
  await expect(page.getByRole("heading", { name: "The best way to grow", level: 1 })).toBeVisible();
}

test("from the clinic's data to a five-year plan in a few acts", async ({ page }) => {
  await growthOf(page, clinic);
  await expect(page.getByText(/^Buy a 12\sTB drive by .*, for €205\.02\.$/)).toBeVisible({ timeout: 30_000 });
  await expect(proof(page)).toBeVisible({ timeout: 30_000 });
  await expect(region(page, "The way").getByRole("listitem")).toHaveCount(2);
  await expect(
    region(page, "Against habits").getByRole("row", { name: /largest there is €631\.44 115 %/ }),
  ).toBeVisible();
  await take(page).click();
  await expect(page.getByRole("heading", { name: "The best way to grow", level: 1 })).toBeFocused();
  await expect(page.getByText(/lanned “The best way to grow” in 12 steps/).first()).toBeVisible();
  // Asked again, the box holds all of it, and what was planned can be thought over from the box as it is.
  await expect(page.getByText("Nothing needs to be bought: the box holds all of it as it is.")).toBeVisible({
    timeout: 30_000,
  });
  await page.getByLabel("Your plan has steps. It grows").selectOption("from the box as it is now, in their place");
  await expect(page.getByText(/^Buy a 12\sTB drive by .*, for €205\.02\.$/)).toBeVisible({ timeout: 30_000 });
  await page.getByRole("link", { name: "Plan", exact: true }).click();
  await expect(page.getByText(/12\s?steps/i).first()).toBeVisible();
});

test("what is wished is changed in place: another aim, fewer bays, a budget that cannot be met", async ({ page }) => {
  await growthOf(page, clinic);
  await expect(proof(page)).toBeVisible({ timeout: 30_000 });
  await page.getByLabel("for the least").selectOption("hours exposed, then money");
  await expect(page.getByText(/€334\.70 in all/)).toBeVisible({ timeout: 30_000 });
  await expect(page.getByText(/Its work leaves nothing exposed/)).toBeVisible();
  await page.getByLabel("for the least").selectOption("money");
  await page.getByLabel(/^spending a year at most/).fill("50");
  await expect(page.getByText(/^It can be made to last until .*, and no longer\.$/)).toBeVisible({ timeout: 30_000 });
  await expect(
    page.getByText(/^With €205\.02 a year at most there is a way\. What would help: more bays/),
  ).toBeVisible();
  await page.getByLabel(/^spending a year at most/).fill("much");
  await expect(page.getByText("Type an amount, or leave it empty.")).toBeVisible();
  await page.getByLabel(/^spending a year at most/).fill("");
  await expect(proof(page)).toBeVisible({ timeout: 30_000 });
});

test("habits and layouts stand beside it, each to be looked at; each assumption says what it moves", async ({
  page,
}) => {
  await growthOf(page, clinic);
  const assumed = region(page, "What would change it");
  await expect(
    assumed.getByRole("row", { name: /^it has to last a year longer €321\.62 €28\.33 more the same$/ }),
  ).toBeVisible({ timeout: 30_000 });
  await expect(assumed.getByRole("row", { name: /^drives are retired after 7 years/ })).toBeVisible({
    timeout: 30_000,
  });
  await expect(assumed.getByText(/^To buy a 12\sTB drive first is right unless prices fall by less than/)).toBeVisible({
    timeout: 30_000,
  });
  await expect(region(page, "Against habits").getByText(/^is too small from Jan 2028 on$/)).toBeVisible();
  await page.getByRole("button", { name: "Look at it with the largest there is" }).click();
  await expect(page.getByRole("heading", { name: "Looked at: with the largest there is" })).toBeFocused();
  await expect(region(page, "That way").getByRole("listitem").first()).toContainText(
    /A 22\sTB drive more, in a free bay/,
  );
  await page.getByRole("button", { name: "Back to the best way" }).click();
  await expect(page.getByRole("heading", { name: "The way", exact: true })).toBeFocused();
  await page.getByRole("button", { name: /^Look at it: €334\.70, never exposed/ }).click();
  await page.getByRole("button", { name: "Make this one the plan" }).click();
  await expect(page.getByText(/lanned “The best way to grow”/).first()).toBeVisible();
});

test("from Compare to which layout costs least over the years, and asked with another", async ({ page }) => {
  await openPlan(page, clinic);
  await page.getByRole("link", { name: "Compare", exact: true }).click();
  await page.getByRole("link", { name: /over the years/ }).click();
  const layouts = region(page, "Layout by layout");
  await expect(layouts.getByRole("heading")).toBeFocused({ timeout: 30_000 });
  const rows = layouts.getByRole("row");
  await expect(rows.nth(1)).toHaveAccessibleName(/^Hybrid \(one\) as it is €293\.29/, { timeout: 30_000 });
  await expect(layouts.getByRole("row", { name: /^RAID 5 made again from a backup now €426\.47/ })).toBeVisible({
    timeout: 30_000,
  });
  await layouts.getByRole("button", { name: /^Ask with it: Hybrid \(two\)/ }).click();
  await expect(page.getByLabel("in a pool that")).toHaveValue("hybrid-2");
  await expect(page.getByRole("heading", { name: "The best way to grow", level: 1 })).toBeFocused();
  await page.getByLabel("surviving the loss of").selectOption("any two drives");
  await expect(page.getByText(/a change of level/i).first()).toBeVisible({ timeout: 30_000 });
});

test("a long search is stopped, and what it has found is taken as it is", async ({ page }) => {
  const box = boxWith("fixed-group", "raid1", [4, 6], [], {}, 12);
  await openPlan(page, { ...box, name: "Pairs", currency: "EUR" });
  await page.goto(`${page.url()}/growth`);
  await page.getByLabel("Hold what is stored now").fill("2 TB");
  await page.getByLabel("and what a month adds").fill("300 GB");
  await page.getByLabel("for the next").selectOption("10 years");
  await page.getByLabel("of mirrored pairs of").selectOption("any two drives (slower)");
  const stop = page.getByRole("button", { name: "Stop, and keep this one" });
  await expect(page.getByText(/so far it costs at most \d+ % more than the best possible/)).toBeVisible({
    timeout: 30_000,
  });
  await stop.click();
  await expect(page.getByText(/It costs at most \d+ % more than the best possible\./)).toBeVisible();
  await take(page).click();
  await expect(page.getByText(/lanned “The best way to grow”/).first()).toBeVisible();
});

test("by keyboard alone on a phone, and axe finds nothing, in light and in dark", async ({ page }) => {
  await growthOf(page, clinic);
  await expect(region(page, "Against habits").getByRole("row")).toHaveCount(5, { timeout: 30_000 });
  await axeFindsNothing(page);
  await page.setViewportSize({ width: 390, height: 844 });
  await tabTo(page, /^in at most/);
  await page.keyboard.press("Control+A");
  await page.keyboard.type("5");
  await expect(proof(page)).toBeVisible({ timeout: 30_000 });
  await tabTo(page, /^Make it the plan$/);
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: "The best way to grow", level: 1 })).toBeFocused();
});

test("a program asks for the same over HTTP, and gets a plan that it can send on", async ({ request }) => {
  const response = await request.post("/api/best-way", { data: { plan: clinic, wish: { months: 60 } } });
  expect(response.status()).toBe(200);
  const { proved, cents, acts, plan } = await response.json();
  expect({ proved, cents, months: acts.map(({ month }: { month: number }) => month) }).toEqual({
    proved: true,
    cents: 29_329,
    months: [14, 57],
  });
  expect((await request.post("/api/predict", { data: plan })).status()).toBe(200);
  expect((await request.get("/api/best-way")).status()).toBe(405);
  expect(
    (await request.post("/api/best-way", { data: "{}", headers: { "content-type": "text/plain" } })).status(),
  ).toBe(415);
});
