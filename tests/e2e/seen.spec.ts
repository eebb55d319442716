import { expect, test, type Locator } from "@playwright/test";
import { coveredClinic } from "../../src/core/document/samples/coveredClinic";
import type { Plan } from "../../src/core/document/plan";
import { openPlan } from "./workbench";

const sizeOf = (locator: Locator) => locator.evaluate((element) => parseFloat(getComputedStyle(element).fontSize));

test("where the pool is lost, the largest words say that; the pattern of what is lost is in the legend", async ({
  page,
}) => {
  await openPlan(page, coveredClinic);
  const figure = page.getByTestId("usable-figure");
  const whole = await sizeOf(figure);
  for (const bay of [1, 2]) await page.getByRole("button", { name: new RegExp(`^What if .* bay ${bay}\\b`) }).click();
  const lost = page.getByText("What if: The pool is lost");
  await expect(lost).toBeVisible();
  expect(await sizeOf(lost)).toBeGreaterThan(1.3 * (await sizeOf(figure)));
  expect(await sizeOf(figure)).toBeLessThan(whole);
  await expect(page.getByRole("list", { name: "What the patterns mean" }).getByText("lost")).toBeVisible();
  await page.keyboard.press("Escape");
  await expect(lost).toHaveCount(0);
  expect(await sizeOf(figure)).toBe(whole);
});

test("entries of the ledger that differ look different, whatever their words", async ({ page }) => {
  await openPlan(page, coveredClinic);
  await page.getByRole("button", { name: "Waterfall" }).click();
  const rows = page
    .getByRole("dialog")
    .getByRole("row")
    .filter({ has: page.locator("th svg") });
  await expect(rows.first()).toBeVisible();
  // The drives, and what is usable of them, are sums.
  const entries = await rows
    .filter({ hasNotText: /All its drives|^Usable/ })
    .evaluateAll((all) => all.map((row) => row.querySelector("th svg")!.innerHTML));
  expect(entries.length).toBeGreaterThan(6);
  expect(new Set(entries).size).toBe(entries.length);
});

test("on paper: all steps with boxes to tick, and no page's own buttons", async ({ page }) => {
  await openPlan(page, coveredClinic);
  const plan = page.url();
  for (const place of ["/carry", "/chance", "/growth"]) {
    await page.goto(plan + place);
    await expect(page.getByRole("heading", { level: 1 })).toBeVisible();
    await page.emulateMedia({ media: "print" });
    if (place === "/carry") {
      const steps = page.locator("main ol > li > h2");
      await expect(steps).toHaveCount(coveredClinic.steps.length);
      await expect(page.getByText(/^It takes/).first()).toBeVisible();
    }
    await expect(page.locator("button:not(.cursor-help)").filter({ visible: true })).toHaveCount(0);
    await expect(page.getByText(coveredClinic.name, { exact: true }).first()).toBeVisible();
    await page.emulateMedia({ media: "screen" });
  }
});

test("many pools are chosen from a list; the drives of a large box fold away in Compare", async ({ page }) => {
  const bays = Array.from({ length: 18 }, (_, i) => i + 7);
  const [pattern] = coveredClinic.drives;
  const large: Plan = {
    ...coveredClinic,
    box: { ...coveredClinic.box, bays: 24 },
    drives: [
      ...coveredClinic.drives,
      ...bays.map((bay) => ({ ...pattern!, id: `d${bay + 20}`, serial: `S-${bay}`, place: { bay } })),
    ],
    pools: [
      ...coveredClinic.pools,
      ...bays.map((bay) => ({
        ...coveredClinic.pools[0]!,
        id: `p${bay}`,
        name: `Videos of ${2000 + bay}`,
        groups: [{ id: `g${bay}`, layout: "single" as const, drives: [`d${bay + 20}`] }],
        volumes: [],
      })),
    ],
  };
  await openPlan(page, large);
  await page.getByLabel("Pool", { exact: true }).selectOption("Videos of 2010");
  await expect(page.getByLabel("Name of the pool")).toHaveValue("Videos of 2010");
  await page.getByRole("link", { name: "Compare" }).click();
  const chosen = page.locator("summary").filter({ hasText: "These drives:" });
  await expect(chosen).toContainText(/4 of 25, 28\.00\sTB in all/);
  await expect(page.getByRole("article").first()).toBeInViewport();
  await chosen.click();
  await page.getByRole("button", { name: "Those of a pool" }).click();
  await page.getByRole("menuitem", { name: "Videos of 2010" }).click();
  await expect(chosen).toContainText(/1 of 25, 4\.00\sTB in all/);
});

test("more contrast and less motion are followed", async ({ page }) => {
  await openPlan(page, coveredClinic);
  const soft = page.getByText("Select drives to make a group of them.");
  const colour = () => soft.evaluate((element) => getComputedStyle(element).color);
  const ink = await page.evaluate(() => getComputedStyle(document.body).color);
  expect(await colour()).not.toBe(ink);
  await page.emulateMedia({ contrast: "more", reducedMotion: "reduce" });
  await expect.poll(colour).toBe(ink);
  const button = page.getByRole("button", { name: "Add", exact: true });
  expect(await button.evaluate((element) => getComputedStyle(element).transitionProperty)).toBe("none");
});
