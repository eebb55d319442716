import { expect, test, type Page } from "@playwright/test";
import { coveredClinic } from "../../src/core/document/samples/coveredClinic";
import { openPlan, tabTo } from "./workbench";

/** What is read aloud of acts. */
const said = (page: Page) => page.locator("#said");
/** What is read aloud of a drive that is carried. */
const carried = (page: Page, words: RegExp) => page.locator('[id^="DndLiveRegion"]').filter({ hasText: words });

test("each act is heard by its own words: selected, added, grouped, exported, saved as data", async ({ page }) => {
  await openPlan(page, coveredClinic);
  await page.getByRole("button", { name: /^3\sTB drive on the shelf/ }).press("Enter");
  await expect(said(page)).toHaveText(/^Selected: 1 drive, 3\.00\sTB\.$/);
  await page.keyboard.press("Escape");
  await expect(said(page)).toHaveText("No drive is selected.");
  await page.getByLabel("Drives to add").fill("2 × 4 TB");
  await page.keyboard.press("Enter");
  await expect(said(page)).toHaveText("Added 2 drives.");
  const added = page.getByRole("list", { name: "Drives on the shelf" }).getByRole("button", { name: /^4\sTB/ });
  for (const drive of await added.all()) await drive.press("Enter");
  await expect(said(page)).toHaveText(/^Selected: 2 drives, 8\.00\sTB\.$/);
  await page.keyboard.press("g");
  await page.getByRole("menuitemradio", { name: /RAID 1\b/ }).press("Enter");
  // What it brings is told with it; what has not changed is not told of.
  await expect(said(page)).toHaveText(/^Made a group of 2 drives with RAID 1\. Usable: \+3\.99\sTB\.$/);
  await page.getByRole("button", { name: "File", exact: true }).press("Enter");
  await page.getByRole("menuitem", { name: "Export this plan" }).press("Enter");
  await expect(said(page)).toHaveText(/^Saved as a file: animal-clinic.*\.cortijo\.json\.$/);
  await page.getByRole("link", { name: "Data" }).press("Enter");
  await page.getByRole("button", { name: "Add data" }).press("Enter");
  await page.getByLabel("Name", { exact: true }).fill("Pictures");
  await page.getByLabel(/^Size/).fill("1 TB");
  await page.keyboard.press("Enter");
  await expect(said(page)).toHaveText("Added the data set “Pictures”.");
});

test("a drop that opens a question says so and has the focus there; given up, it goes back", async ({ page }) => {
  await openPlan(page, coveredClinic);
  await page.getByRole("list", { name: "Steps" }).getByRole("button", { name: /^1 / }).click();
  await expect(page.getByRole("region", { name: "The chosen step" })).toBeVisible();
  const old = page.getByRole("button", { name: /^3\sTB drive on the shelf/ });
  await old.focus();
  await page.keyboard.press("m");
  await expect(carried(page, /^Over the shelf/)).toBeAttached();
  await page.keyboard.press("ArrowRight");
  await expect(carried(page, /in place of/)).toBeAttached();
  await page.keyboard.press("m");
  const question = page.getByRole("group", { name: "A change to plan" });
  await expect(question).toBeFocused();
  await expect(question).toHaveAccessibleDescription(/^Replace .* by the 3\sTB drive/);
  await expect(said(page)).toHaveText("Nothing is planned yet: a question is asked first.");
  await expect(carried(page, /^Put/)).toHaveCount(0);
  await tabTo(page, /^Cancel$/);
  await page.keyboard.press("Enter");
  await expect(old).toBeFocused();
  // The same from a menu.
  const more = page.getByRole("button", { name: /^More about the 3\sTB/ });
  await more.press("Enter");
  await page.getByRole("menuitem", { name: "Move to" }).press("ArrowRight");
  await page.getByRole("menuitem", { name: /^Bay 2/ }).press("Enter");
  await expect(question).toBeFocused();
  await tabTo(page, /^Cancel$/);
  await page.keyboard.press("Enter");
  await expect(more).toBeFocused();
});

test("time is heard by its date, then what is left of protection, then figures", async ({ page }) => {
  await openPlan(page, coveredClinic);
  const moment = page.getByRole("slider", { name: "Moment of the plan" });
  await moment.focus();
  for (let i = 0; i < 3; i += 1) await page.keyboard.press("ArrowRight");
  await expect(moment).toHaveAttribute(
    "aria-valuetext",
    /^\w{3} \d+ \w{3} 2026, after step 3 of 8\. Until the new drive is filled, .* would lose data\. The 4\sTB .*in the pool\.$/,
  );
});

test("what charts draw stands in a table under them", async ({ page }) => {
  await openPlan(page, coveredClinic);
  await page.getByRole("link", { name: "Data" }).click();
  await page.getByText("As a table").press("Enter");
  const table = page.getByRole("region", { name: "The figures of the chart" });
  await expect(table.getByRole("columnheader")).toHaveText(["On", "stored", "space for it", "left"]);
  await expect(table.getByRole("row").nth(1)).toContainText(/9\.\d+\sTB/);
});
