import { expect, test } from "@playwright/test";
import { firstVisit, saved, usable } from "./workbench";

test("the first visit opens on the demo plan with its figures; the second shows the list", async ({ page }) => {
  await firstVisit(page);
  await expect(page.getByRole("heading", { level: 1, name: "Animal clinic, Villarrolla" })).toBeAttached();
  await expect(usable(page)).toHaveText(/15\.97\s*TB/);
  await expect(page.getByRole("heading", { name: "Survives the loss of any one drive" })).toBeVisible();
  await expect(
    page.getByText(/4\.00\sTB of the 12\sTB drive in bay 4 \(serial TJ12-0036\) stays unused/),
  ).toBeVisible();
  await page.goto("/");
  await expect(page.getByRole("link", { name: "Open Animal clinic, Villarrolla" })).toBeVisible();
});

test("who presses a link of the first look before the demo is there goes where it leads", async ({ page }) => {
  // What the link leads to comes late: the demo is ready long before.
  await page.route(/\/new(\?|$)/, async (route) => {
    await new Promise((resolve) => setTimeout(resolve, 1500));
    await route.continue();
  });
  await page.goto("/", { waitUntil: "commit" });
  await page.getByRole("link", { name: "Plan your own box" }).first().click({ noWaitAfter: true });
  await expect(page.getByLabel("What drives do you have?")).toBeVisible();
  await expect(page).toHaveURL(/\/new$/);
});

test("the unit switch changes every figure and is remembered", async ({ page }) => {
  await firstVisit(page);
  await page.getByRole("radio", { name: "TiB" }).click();
  await expect(usable(page)).toHaveText(/14\.53\s*TiB/);
  await expect(page.getByRole("button", { name: /^3\.64\sTiB drive in bay 1/ })).toBeVisible();
  await page.reload();
  await expect(usable(page)).toHaveText(/14\.53\s*TiB/);
});

test("the ledger sums to the drives", async ({ page }) => {
  await firstVisit(page);
  const exact = await page
    .locator("table")
    .first()
    .locator("td span[title]")
    .evaluateAll((cells) => cells.map((cell) => Number((cell.getAttribute("title") ?? "").replace(/\D/g, ""))));
  const [total, ...entries] = exact;
  expect(total).toBe(2 * 4_000_787_030_016 + 8_001_563_222_016 + 12_000_138_625_024);
  expect(entries.reduce((sum, bytes) => sum + bytes, 0)).toBe(total);
});

test("failing drives shows on the read-out what that does, and nothing in the plan changes", async ({ page }) => {
  await firstVisit(page);
  await page.getByRole("button", { name: /What if the 8\sTB drive in bay 3/ }).click();
  await expect(page.getByRole("heading", { name: "Nothing is lost; one drive is missing" })).toBeVisible();
  await expect(
    page.getByText("Until the replacement is rebuilt, one more failed drive would lose data."),
  ).toBeVisible();
  await page.getByRole("button", { name: /What if the 12\sTB drive in bay 4/ }).click();
  await expect(page.getByRole("heading", { name: "The pool is lost" })).toBeVisible();
  await expect(page.getByRole("button", { name: "Undo", exact: true })).toBeDisabled();
  await page.getByRole("button", { name: "Make whole again" }).click();
  await expect(page.getByRole("heading", { name: "Survives the loss of any one drive" })).toBeVisible();
});

test("the layout menu says what each would hold, and the choice shows its change", async ({ page }) => {
  await firstVisit(page);
  await page.getByRole("button", { name: /^Layout of Images/ }).click();
  await expect(page.getByRole("menuitemradio", { name: /RAID 5.*11\.97\sTB.*survives any one/ })).toBeVisible();
  const triple = page.getByRole("menuitemradio", { name: /Triple parity.*Needs 5 drives: 1 more/ });
  await expect(triple).toHaveAttribute("aria-disabled", "true");
  await page.getByRole("menuitemradio", { name: /RAID 6/ }).click();
  await expect(usable(page)).toHaveText(/7\.98\s*TB/);
  await expect(page.getByText("−7.99 TB since you changed the layout to RAID 6.")).toBeVisible();
  await expect(page.getByRole("heading", { name: "Survives the loss of any 2 drives" })).toBeVisible();
});

test("a suspect drive that joins is warned of before and after, and one press takes it out again", async ({ page }) => {
  await firstVisit(page);
  await page.getByRole("button", { name: /^3\sTB drive on the shelf/ }).click();
  await page.getByRole("button", { name: "Add to a pool" }).click();
  await page
    .getByRole("menuitem", {
      name: /Images, 4 drives becomes Hybrid, one drive.*Warning\..*24 worn-out sectors. Test it before/,
    })
    .click();
  await expect(page.getByText(/has 24 worn-out sectors/)).toBeVisible();
  await page.getByRole("button", { name: "Undo" }).first().click();
  await expect(page.getByText(/has 24 worn-out sectors/)).toBeHidden();
  await saved(page);
});
