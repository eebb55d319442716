import { expect, test, type Page } from "@playwright/test";
import { readFileSync } from "node:fs";
import { boxOf, firstVisit, newPlan, openPlan, saved, usable } from "./workbench";

const layouts = (page: Page) => page.getByRole("list", { name: "Layouts" }).getByRole("listitem");
const drives = (page: Page) => page.getByLabel("What drives do you have?");

test("from the first page to what three odd drives hold: two acts and less than ten seconds", async ({ page }) => {
  const begun = Date.now();
  await page.goto("/");
  await page.getByRole("link", { name: "Plan your own box" }).first().click();
  await drives(page).fill("3, 4 and 8 TB");
  await expect(layouts(page).first()).toContainText(/RAID 5\s*single parity\s*6\.00\sTB/);
  expect(Date.now() - begun).toBeLessThan(10_000);
  await expect(layouts(page)).toHaveCount(3);
  await expect(layouts(page).first()).toContainText("Survives the loss of any one drive.");
  await expect(layouts(page).first()).toContainText(/Your box will show “5\.46\sTiB”/);
  await expect(layouts(page).last()).toContainText("If any drive fails, data is lost.");
  // Another kind of box, and what it would hold, stands beside it.
  await page.getByRole("radio", { name: /^Hybrid box up to 6\.98\sTB/ }).check();
  await expect(layouts(page).first()).toContainText(/Hybrid \(one\)\s*one drive safe\s*6\.98\sTB/);
  await page.getByRole("button", { name: "Make it my plan: Hybrid (one)" }).click();
  await expect(usable(page)).toHaveText(/6\.98\s*TB/);
  await expect(page.getByRole("button", { name: /^8\sTB drive in bay 3/ })).toBeVisible();
  await expect(page.getByText("This is an example")).toHaveCount(0);
  // The drives have no serials: that is asked once.
  await page.getByRole("button", { name: "Type serials…" }).click();
  await page.getByRole("dialog").getByLabel("3 TB drive in bay 1").fill("AA-1");
  await page.getByRole("dialog").getByLabel("4 TB drive in bay 2").fill("aa-1");
  await page.getByRole("button", { name: "Save" }).click();
  await expect(page.getByRole("alert")).toContainText("Two drives cannot both have the serial aa-1");
  await page.getByRole("dialog").getByLabel("4 TB drive in bay 2").fill("AA-2");
  await page.getByRole("button", { name: "Save" }).click();
  await expect(page.getByRole("button", { name: /^4\sTB drive in bay 2 \(serial AA-2\)/ })).toBeVisible();
  await page.getByRole("button", { name: "Not now" }).click();
  await saved(page);
  await page.reload();
  await expect(usable(page)).toHaveText(/6\.98\s*TB/);
  await expect(page.getByRole("button", { name: "Type serials…" })).toHaveCount(0);
});

test("drives as they are typed, pasted or read from a file; what cannot be says why", async ({ page }) => {
  await page.goto("/new");
  await drives(page).fill("4, 4, ssd");
  await expect(page.getByRole("status").filter({ hasText: "has no size" })).toBeVisible();
  await page.reload();
  await expect(drives(page)).toHaveValue("4, 4, ssd");
  await drives(page).fill("30 × 4 TB");
  await expect(page.getByText("A plan is of one box with up to 24 bays, and these are 30 drives.")).toBeVisible();
  await drives(page).fill("12 x 4");
  await expect(page.getByRole("status").filter({ hasText: "12 drives: 12 × 4 TB, taken as terabytes" })).toBeVisible();
  await page.getByRole("spinbutton", { name: "How many bays has your box?" }).fill("8");
  await expect(page.getByText("12 drives do not fit into 8 bays.")).toBeVisible();
  await drives(page).fill(readFileSync("src/exchange/inventory/captures/six-bay-home-server.json", "utf8"));
  await expect(page.getByRole("status").filter({ hasText: /^\d drives: .* left out\.$/ })).toBeVisible();
  await page.getByLabel("A file with drives").setInputFiles({
    name: "d.csv",
    mimeType: "text/csv",
    buffer: Buffer.from('size,serial\n"4 TB",S-1\n"8 TB",S-2\n'),
  });
  await expect(page.getByRole("status").filter({ hasText: "2 drives: 4 TB and 8 TB." })).toBeVisible();
  await page.getByRole("button", { name: "Compare all layouts" }).click();
  await expect(page.getByRole("region", { name: "Layouts side by side" })).toBeVisible();
  await expect(page.getByRole("article", { name: "RAID 1" })).toContainText(/4\.00\sTB/);
  await page.getByRole("button", { name: "File", exact: true }).click();
  await page.getByRole("menuitem", { name: "New plan…" }).click();
  await page.getByRole("button", { name: "Begin with an empty box" }).click();
  await expect(page.getByText("The box is empty.")).toBeVisible();
});

test("a layout is explained on these drives, and a press fails one; a word of the trade by key", async ({ page }) => {
  await firstVisit(page);
  await page.getByRole("button", { name: /^Layout of Images/ }).click();
  await page.getByRole("menuitem", { name: "What are these layouts?" }).click();
  const dialog = page.getByRole("dialog", { name: "Hybrid, one drive safe" });
  await expect(dialog).toContainText("It is no backup");
  await dialog.getByRole("radio", { name: "RAID 0" }).check();
  const stripe = page.getByRole("dialog", { name: "RAID 0 (stripe)" });
  await stripe.getByRole("button", { name: /^Fail drive 2, 4\sTB/ }).click();
  await expect(stripe.getByRole("status").filter({ hasText: "The pool is lost" })).toBeVisible();
  await stripe.getByRole("button", { name: "All drives work again" }).click();
  await expect(stripe).toContainText("If any drive fails, data is lost");
  await page.keyboard.press("Escape");
  await expect(page.getByRole("button", { name: /^Layout of Images/ })).toBeFocused();
  const word = page.getByRole("button", { name: "Parity", exact: true });
  await word.focus();
  await page.keyboard.press("Enter");
  await expect(page.getByText("What is worked out from the other drives")).toBeVisible();
  await expect(word).toBeFocused();
  await page.keyboard.press("Escape");
  await expect(page.getByText("What is worked out from the other drives")).toBeHidden();
});

test("what a group becomes is said before drives are added to it, and both ways are offered", async ({ page }) => {
  await openPlan(page, boxOf("Mirror", "linux-host", "raid1", [4, 4], [4]));
  await page.getByRole("button", { name: /^4\sTB drive on the shelf/ }).click();
  await page.getByRole("button", { name: "Add to a pool" }).click();
  const ways = page.getByRole("menuitem", { name: /becomes/ });
  await expect(ways).toHaveText([
    /RAID 1 \(mirror\) of 3 drives: the space stays, survives any 2/,
    /RAID 5 \(single parity\) of 3 drives: \+4\.00\sTB, survives any one/,
  ]);
  await ways.nth(1).click();
  await expect(usable(page)).toHaveText(/8\.00\s*TB/);
  await expect(page.getByRole("button", { name: /^Layout of Shared/ })).toBeFocused();
});

test("after every act the focus is on its result, and never on nothing", async ({ page }) => {
  await newPlan(page);
  await page.getByLabel("Drives to add").fill("3 × 4 TB");
  await page.getByLabel("Drives to add").press("Enter");
  await expect(page.getByLabel("Drives to add")).toBeFocused();
  const shelved = page.getByRole("list", { name: "Drives on the shelf" }).getByRole("button", { name: /^4\sTB/ });
  await shelved.first().press("Enter");
  await page.getByRole("button", { name: "Put in free bays" }).press("Enter");
  const inBay = page.getByRole("button", { name: /^4\sTB drive in bay 1/ });
  await expect(inBay).toBeFocused();
  for (const drive of [inBay, shelved.first(), shelved.last()]) await drive.press("Enter");
  // A key groups what is selected.
  await page.keyboard.press("g");
  await page.getByRole("menuitemradio", { name: /RAID 5/ }).press("Enter");
  await expect(page.getByRole("button", { name: /^Layout of Pool 1 RAID 5/ })).toBeFocused();
  await page.getByLabel("Plan what I do next as a step").check();
  await page.getByRole("button", { name: "Ready-made steps" }).press("Enter");
  const asked = page.getByRole("dialog");
  await asked.getByRole("button", { name: "Larger drives, one by one" }).click();
  await asked.getByRole("button", { name: /^Plan these/ }).click();
  const steps = page.getByRole("list", { name: "Steps", exact: true });
  await expect(steps.locator('[aria-current="step"]')).toBeFocused();
  const edge = page.getByRole("separator", { name: "Height of the steps" });
  await edge.press("ArrowUp");
  await expect(edge).toHaveAttribute("aria-valuenow", "224");
  await page.getByRole("button", { name: "More about step 1" }).press("Enter");
  await page.getByRole("menuitem", { name: "Remove" }).press("Enter");
  await expect(page.locator("[data-step]:focus, #steps-heading:focus")).toHaveCount(1);
  await page.getByRole("link", { name: "Calendar" }).press("Enter");
  await page.getByRole("button", { name: /^Give this plan dates/ }).press("Enter");
  await expect(page.getByLabel("The first day")).toBeVisible();
  await expect.poll(() => page.evaluate(() => document.activeElement?.tagName)).not.toBe("BODY");
});
