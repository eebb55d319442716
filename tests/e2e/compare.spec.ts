import { readFileSync } from "node:fs";
import { expect, test, type Page } from "@playwright/test";
import { firstVisit, newPlan, saved, tabTo, usable } from "./workbench";

async function compare(page: Page): Promise<void> {
  await page.getByRole("link", { name: "Compare" }).click();
  await expect(page.getByRole("article").first()).toBeVisible();
}
const card = (page: Page, name: string | RegExp) => page.getByRole("article", { name, exact: true });
const ways = (page: Page) => page.getByRole("status").filter({ hasText: /ways? ?(fit)?$/ });

test("chosen by need, applied, seen on the workbench, and undone", async ({ page }) => {
  await firstVisit(page);
  await expect(usable(page)).toHaveText(/15\.97/);
  await compare(page);
  await page.getByLabel("How many failed drives it must survive").selectOption({ label: "any two" });
  await expect(ways(page)).toHaveText(/^3 of 12 ways fit$/);
  await expect(page.getByRole("heading", { name: "Does not fit what you need" })).toBeVisible();
  await expect(card(page, "Hybrid (one)")).toContainText("survives only one failed drive");
  await page.getByRole("button", { name: "Apply Hybrid (two)" }).click();
  await expect(card(page, "Hybrid (two)")).toContainText("as it is in the plan");
  await page.getByRole("link", { name: "Plan", exact: true }).click();
  await expect(usable(page)).toHaveText(/7\.98/);
  await expect(page.getByRole("heading", { name: "Survives the loss of any 2 drives" })).toBeVisible();
  await page.keyboard.press("Control+z");
  await expect(usable(page)).toHaveText(/15\.97/);
});

test("what is short says by how much, and the nearest change that mends it", async ({ page }) => {
  await firstVisit(page);
  await compare(page);
  await page.getByLabel("Usable space at least").fill("20 TB");
  await expect(card(page, "Hybrid (one)")).toContainText(/4\.03\sTB short. It would with one more 12\sTB drive\./);
  await page.getByLabel("Usable space at least").fill("20 parsecs");
  await expect(page.getByRole("alert").filter({ hasText: "not a unit of size" })).toBeVisible();
  await page.getByRole("button", { name: "Clear" }).click();
  await expect(ways(page)).toHaveText(/^12 ways$/);
});

test("two pinned stand face to face with their differences in words", async ({ page }) => {
  await firstVisit(page);
  await compare(page);
  await page.getByRole("button", { name: "Pin Hybrid (one)", exact: true }).click();
  await page.getByRole("button", { name: "Pin RAID 6", exact: true }).click();
  const dialog = page.getByRole("dialog", { name: "Face to face" });
  await expect(dialog).toContainText(/Hybrid \(one\) holds 7\.99\sTB more than RAID 6\./);
  await expect(dialog).toContainText(
    "Hybrid (one) survives the loss of any one drive; RAID 6 survives the loss of any 2 drives.",
  );
  await page.keyboard.press("Escape");
  await expect(page.getByRole("button", { name: "Pin RAID 6", exact: true })).toHaveAttribute("aria-pressed", "true");
});

test("the best buy, by one's own prices, comes to the shelf as a drive to buy", async ({ page }) => {
  await firstVisit(page);
  await compare(page);
  await page.getByText("The next drive").click();
  await expect(page.getByText("By invented example prices")).toBeVisible();
  await page.getByRole("button", { name: "Prices…" }).click();
  await page.getByLabel("Price list").fill("size,price\n12 TB,200\n16 TB,");
  await page.getByRole("button", { name: "Use these prices" }).click();
  await expect(page.getByRole("alert").filter({ hasText: "Line 3: there is no price." })).toBeVisible();
  await page.getByLabel("Price list").fill("size,price\n12 TB,200\n16 TB,260");
  await page.getByRole("button", { name: "Use these prices" }).click();
  const buys = page.getByRole("region", { name: "What to buy" });
  await expect(buys).toContainText(/By your prices/);
  // One 12 TB drive more brings the 4 TB top of the present one and 8 TB besides.
  await expect(buys).toContainText(/Best: 12\sTB as one more\. \+11\.99\sTB for 200/);
  await buys.getByRole("button", { name: "Put it on the shelf, to buy" }).click();
  await page.getByRole("link", { name: "Plan", exact: true }).click();
  await expect(
    page
      .getByRole("list", { name: "Drives on the shelf" })
      .getByRole("button", { name: /^12\sTB drive on the shelf.*to buy/ }),
  ).toBeVisible();
  await saved(page);
  await page.reload();
  await expect(page.getByRole("button", { name: /^12\sTB drive on the shelf.*to buy/ })).toBeVisible();
});

test("the ghost bay says what each size would bring, and opens the next drive", async ({ page }) => {
  await firstVisit(page);
  const ghost = page.getByRole("slider", { name: /What if a drive came to bay 5/ });
  await ghost.focus();
  await expect(page.getByText(/A 12\sTB drive here: \+11\.99\sTB\./)).toBeVisible();
  await page.keyboard.press("ArrowDown");
  await expect(page.getByText(/A 10\sTB drive here: Too small to join/)).toBeVisible();
  await page.keyboard.press("ArrowUp");
  await page.keyboard.press("ArrowUp");
  await expect(
    page.getByText(/From 12\sTB upwards 11\.99\sTB, and nothing more until a second one comes/),
  ).toBeVisible();
  await page.keyboard.press("Enter");
  await expect(page.getByRole("dialog", { name: "What if another drive came?" })).toContainText("What to buy");
});

test("a ghost that could not be worked out says so in its bay, and is worked out when asked again", async ({
  page,
}) => {
  await page.addInitScript(() => {
    const Real = Worker;
    Object.assign(window, {
      Worker: class extends Real {
        constructor(...all: ConstructorParameters<typeof Worker>) {
          if (!document.title.startsWith("Mended")) throw new Error("The computation could not be started.");
          super(...all);
        }
      },
    });
  });
  await firstVisit(page);
  const again = page.getByRole("button", {
    name: /What a drive in bay 5 would bring could not be worked out. Try again/,
  });
  await expect(again).toBeVisible();
  await page.evaluate(() => (document.title = "Mended"));
  await again.press("Enter");
  await expect(page.getByRole("slider", { name: /What if a drive came to bay 5/ })).toBeFocused();
  await expect(page.getByText(/A 12\sTB drive here: \+11\.99\sTB\./)).toBeVisible();
});

test("a small old drive is left out where that gives more, and what cannot be made is listed last", async ({
  page,
}) => {
  await newPlan(page);
  await page.getByLabel("Drives to add").fill("500 GB + 3 × 4 TB");
  await page.getByRole("button", { name: "Add", exact: true }).click();
  await compare(page);
  await expect(card(page, "RAID 5, without 1 drive")).toContainText(/8\.00/);
  await page.getByRole("button", { name: /^500\sGB.*no\. 1$/ }).click();
  await expect(page.getByRole("region", { name: "Not possible with these drives" })).toContainText(
    "Needs 4 drives: 1 more.",
  );
});

test("24 drives: all layouts, and that splits into hybrids were not weighed in every way", async ({ page }) => {
  await newPlan(page);
  await page.getByRole("button", { name: /^Kind of box/ }).click();
  await page.getByRole("menuitemradio", { name: /^Hybrid box/ }).click();
  for (const line of ["12 × 4 TB", "12 × 8 TB"]) {
    await page.getByLabel("Drives to add").fill(line);
    await page.getByRole("button", { name: "Add", exact: true }).click();
  }
  await compare(page);
  await expect(card(page, "RAID 60, 2 groups of 12")).toBeVisible();
  await expect(page.getByText(/not ruled out/)).toBeVisible();
  await page.getByLabel("Best first by").selectOption({ label: "longest rebuild" });
  await expect(page.getByRole("article").first()).toContainText(/Rebuild/);
});

test("by keyboard alone: need, sort, apply, undo", async ({ page }) => {
  await firstVisit(page);
  await tabTo(page, /^Compare$/);
  await page.keyboard.press("Enter");
  await expect(page.getByRole("article").first()).toBeVisible();
  await tabTo(page, /^How many failed drives it must survive$/);
  await page.keyboard.press("ArrowDown");
  await expect(ways(page)).toHaveText(/3 of 12 ways fit/);
  await tabTo(page, /^Apply Hybrid \(two\)$/);
  await page.keyboard.press("Enter");
  await expect(card(page, "Hybrid (two)")).toContainText("as it is in the plan");
  await page.keyboard.press("Control+z");
  await expect(card(page, "Hybrid (one)")).toContainText("as it is in the plan");
});

test("the comparison as CSV", async ({ page }) => {
  await firstVisit(page);
  await compare(page);
  await page.getByRole("button", { name: "Copy" }).click();
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("menuitem", { name: "Save as CSV" }).click(),
  ]);
  const text = readFileSync(await download.path(), "utf8")
    .trim()
    .split("\n");
  expect(text[0]).toMatch(/^layout,groups,drives,usable_bytes/);
  expect(text).toHaveLength(13);
  expect(text.find((line) => line.startsWith("Hybrid (one),,4,15970"))).toBeDefined();
});

test("a point of the scatter's list leads to its picture", async ({ page }) => {
  await firstVisit(page);
  await compare(page);
  await page
    .getByRole("list", { name: "The best of both" })
    .getByRole("button", { name: /RAID 6/ })
    .click();
  await expect(page.getByRole("button", { name: "Apply RAID 6" })).toBeFocused();
});

test("on a phone everything is there", async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await firstVisit(page);
  await compare(page);
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await page.getByRole("button", { name: "Apply RAID 6" }).click();
  await expect(card(page, "RAID 6")).toContainText("as it is in the plan");
});
