import { expect, test, type Page } from "@playwright/test";
import { coveredClinic } from "../../src/core/document/samples/coveredClinic";
import type { Plan } from "../../src/core/document/plan";
import { boxWith } from "../../src/core/testing/boxWith";
import { axeFindsNothing } from "./axe";
import { openPlan, tabTo } from "./workbench";

const region = (page: Page, name: string) => page.getByRole("region", { name });

/** Opens a plan where its chance of loss is told, once all of that is there. */
async function chanceOf(page: Page, plan: Plan): Promise<void> {
  await openPlan(page, plan);
  await page.getByRole("link", { name: "Chance of loss" }).click();
  await expect(region(page, "What moves it")).toBeVisible({ timeout: 30_000 });
  await expect(region(page, "What helps most").getByText(/^On the way|^In the year/)).toBeVisible({ timeout: 30_000 });
}

test("the workbench tells it at each moment; where the box can, the way with the lower chance is chosen", async ({
  page,
}) => {
  const box = boxWith("linux-host", "raid5", [4, 4, 4, 4], [12], {}, 6);
  await openPlan(page, box);
  const line = region(page, "Chance of loss");
  await expect(line.getByText(/such boxes lose something in a year; /)).toBeVisible({ timeout: 30_000 });
  await page.getByRole("button", { name: "Ready-made steps" }).click();
  const dialog = page.getByRole("dialog");
  await dialog.getByRole("button", { name: "Larger drives, one by one", exact: true }).click();
  const chance = dialog.getByText(/such boxes lose something on the way/);
  const keep = dialog.getByLabel("keep the old drive in its bay meanwhile");
  await keep.uncheck();
  await expect(chance).toHaveText(/^[0-9]+ of 1,000 \(between /, { timeout: 30_000 });
  await keep.check();
  await expect(chance).toHaveText(/ of 100,000 \(/, { timeout: 30_000 });
  await dialog.getByRole("button", { name: /^Plan these \d+ steps$/ }).click();
  await expect(line.getByText(/On the way through the plan .* of 100,000; /)).toBeVisible({ timeout: 30_000 });
});

test("an input is changed, the figures follow, and it is put back", async ({ page }) => {
  await chanceOf(page, coveredClinic);
  const headline = page.getByText(/^About .* such boxes lose something by their drives in a year; /);
  await expect(headline).toHaveText(/^About 2 of 1,000 such boxes/);
  const row = page.getByRole("row", { name: /^Unreadable when it is read/ });
  await row.getByRole("textbox", { name: /: expected,/ }).fill("900");
  await page.keyboard.press("Enter");
  await expect(page.getByText("Unreadable when it is read: Low, expected and high go up.")).toBeVisible();
  await row.getByRole("textbox", { name: /: high,/ }).fill("1000");
  // Its effect is seen while it is typed, before the plan has it.
  await expect(headline).toHaveText(/^About [0-9]{2,} of 1,000 such boxes/, { timeout: 30_000 });
  await expect(row.getByText("yours")).toHaveCount(0);
  await page.keyboard.press("Enter");
  await expect(row.getByText("yours")).toBeVisible();
  await expect(headline).toHaveText(/^About [0-9]{2,} of 1,000 such boxes/, { timeout: 30_000 });
  await page.getByRole("button", { name: "As usual: Unreadable when it is read" }).click();
  await expect(page.getByRole("heading", { name: "Inputs" })).toBeFocused();
  await expect(headline).toHaveText(/^About 2 of 1,000 such boxes/, { timeout: 30_000 });
  await page.getByRole("button", { name: "Undo", exact: true }).first().click();
  await expect(headline).toHaveText(/^About [0-9]{2,} of 1,000 such boxes/, { timeout: 30_000 });
});

test("what helps most goes into the plan at a press, and the chances are told anew", async ({ page }) => {
  await chanceOf(page, coveredClinic);
  const helps = region(page, "What helps most");
  const first = helps.getByRole("listitem").first();
  await expect(first).toContainText("A weekly backup at another place");
  await expect(first).toContainText("Saves 42 of 1,000.");
  await first.getByRole("button", { name: /^Put it into the plan/ }).click();
  await expect(helps.getByRole("heading")).toBeFocused();
  await expect(helps.getByText(/^On the way and in the year after it 4 of 1,000/)).toBeVisible({ timeout: 30_000 });
  await expect(helps.getByText("A weekly backup at another place")).toHaveCount(0);
  await page.getByRole("link", { name: "Data", exact: true }).click();
  await expect(page.getByText("Backup elsewhere").first()).toBeVisible();
});

test("by keyboard alone, and axe finds nothing, in light and in dark", async ({ page }) => {
  await openPlan(page, { ...coveredClinic, chance: { alerts: false } });
  await expect(region(page, "Chance of loss").getByText(/such boxes lose something/)).toBeVisible({ timeout: 30_000 });
  await tabTo(page, /^Chance of loss$/);
  await page.keyboard.press("Enter");
  await expect(region(page, "What moves it")).toBeVisible({ timeout: 30_000 });
  await expect(region(page, "What helps most").getByText(/^On the way/)).toBeVisible({ timeout: 30_000 });
  await page.getByRole("radio", { name: "Now" }).focus();
  await page.keyboard.press("ArrowRight");
  await expect(page.getByRole("radio", { name: "After the plan" })).toBeChecked();
  const alerts = page.getByLabel("The box tells you when a drive fails");
  await alerts.focus();
  await page.keyboard.press("Space");
  await expect(alerts).toBeChecked();
  await expect(alerts).toBeFocused();
  await page.getByText("As a table").first().click();
  await expect(page.locator("[aria-busy=true]")).toHaveCount(0, { timeout: 30_000 });
  await axeFindsNothing(page);
});

test("a plan without a pool says where one is made; one without data leads to what is stored", async ({ page }) => {
  await openPlan(page, boxWith("classic-raid", "raid5", [12, 12, 12, 12], [], {}, 6));
  await page.goto(`${page.url().replace(/[?#].*$/, "")}/chance`);
  await expect(page.getByRole("link", { name: "Say what is stored first" })).toBeVisible({ timeout: 30_000 });
  await page.goto(page.url().replace("/chance", ""));
});
