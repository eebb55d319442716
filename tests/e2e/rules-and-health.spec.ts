import { expect, test } from "@playwright/test";
import { readFile } from "node:fs/promises";
import { boxOf, firstVisit, newPlan, openPlan, saved, tabTo, usable } from "./workbench";

test("SMART data shows a suspect drive, which is warned of and taken out of the parity group", async ({ page }) => {
  await firstVisit(page);
  await page.getByRole("button", { name: "More ways to bring drives in" }).click();
  await page.getByRole("menuitem", { name: "Read SMART data…" }).click();
  await page
    .getByLabel("Output of the command")
    .fill(await readFile("src/exchange/smart/captures/ata-array.json", "utf8"));
  await page.getByRole("button", { name: "Read", exact: true }).click();
  const reports = page.getByRole("list", { name: "Reports" });
  await expect(reports.getByRole("listitem").filter({ hasText: "TJ4-0422" })).toContainText("Worn");
  await page.getByRole("button", { name: "Take over" }).click();

  const findings = page.getByRole("list", { name: "Findings" });
  const suspect = findings.getByRole("listitem").filter({ hasText: "TJ4-0422" });
  // Against the reading before, it gets worse.
  await expect(suspect).toContainText(
    "16 worn-out sectors and 2 that cannot be read, 18 more than at the reading before",
  );
  await expect(findings).toContainText("TJ8-1190), which is failing");
  // Nothing that only takes it out is offered.
  await expect(suspect.getByRole("button", { name: /^(Replace|Remove|Do not)/ })).toHaveCount(0);
  await page.getByRole("button", { name: /^More about the 4\sTB drive in bay 2/ }).click();
  await page.getByRole("menuitem", { name: "Remove from Images" }).click();
  await expect(page.getByRole("button", { name: /^Layout of Images Hybrid \(one\), 3 drives/ })).toBeVisible();

  // Where it is about to be used again, what speaks against it is said.
  await page.getByRole("button", { name: /^4\sTB drive in bay 2/ }).click();
  await page.getByRole("button", { name: "Add to a pool" }).click();
  await expect(
    page.getByRole("menuitem", {
      name: /Images, 3 drives becomes Hybrid, one drive.*Blocked\..*16 worn-out.*gets worse/,
    }),
  ).toBeVisible();
});

test("a rule is changed and the figures follow; the answer that differs is shown and can be taken back", async ({
  page,
}) => {
  await firstVisit(page);
  await page.getByRole("button", { name: /^Kind of box/ }).click();
  await page.getByRole("menuitem", { name: /What can your box do/ }).click();
  await expect(page.getByRole("heading", { level: 1, name: "What can your box do?" })).toBeVisible();
  await expect(page.getByText("A drive needs at least 12.00 TB to join Images.")).toBeVisible();
  const reserve = page.getByRole("group", { name: "How much of every drive does it keep for itself?" });
  await expect(reserve.getByRole("radio", { name: /Nothing \(\+32\.21\sGB\)/ })).toBeVisible();
  await reserve.getByRole("radio", { name: /Nothing/ }).check();
  await expect(reserve.getByText("Differs from the set: 10 GiB.")).toBeVisible();
  await page
    .getByRole("group", { name: "How does its own screen show sizes?" })
    .getByRole("radio", { name: /^Decimal/ })
    .check();
  // A number of one's own; what cannot be is said and stays as it was typed.
  const minutes = page.getByLabel(/^Another answer in minutes/);
  await minutes.fill("2000");
  await minutes.press("Enter");
  await expect(page.getByText("Type a number of minutes from 0 to 1440.")).toBeVisible();
  await minutes.fill("25");
  await minutes.press("Enter");
  await expect(minutes).toBeFocused();
  await expect(page.getByText("Differs from the set: 15 minutes.")).toBeVisible();
  await expect(page.getByRole("radio", { name: "25 minutes" })).toBeChecked();
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(page.getByRole("radio", { name: "25 minutes" })).toHaveCount(0);
  await expect(minutes).toHaveValue("15");
  await page.getByRole("link", { name: /^Back to Animal clinic/ }).click();
  await expect(usable(page)).toHaveText(/16\.00\s*TB/);
  await expect(page.getByText("Your box will show “16.00 TB”.")).toBeVisible();
  await page.getByRole("button", { name: "Undo: changed the box's rules" }).click();
  await page.getByRole("button", { name: "Undo: changed the box's rules" }).click();
  await expect(usable(page)).toHaveText(/15\.97\s*TB/);
  await expect(page.getByText("Your box will show “14.53 TB”.")).toBeVisible();
});

test("the waterfall is opened and read by keyboard: a table with every cause stands behind it, to the byte", async ({
  page,
}) => {
  await firstVisit(page);
  await tabTo(page, /^Waterfall$/);
  await page.keyboard.press("Enter");
  const dialog = page.getByRole("dialog", { name: "Where the bytes of Images went" });
  await expect(dialog.getByText("That step is no loss.")).toBeVisible();
  await expect(dialog.locator(".js-plotly-plot .bars .point")).toHaveCount(7);
  const exact = async (cause: string) =>
    Number((await dialog.getByTestId(`exact-${cause}`).textContent())!.replace(/\D/g, ""));
  const parts = await Promise.all(["system-reserve", "rounding", "idle", "copies", "parity", "usable"].map(exact));
  expect(parts.reduce((sum, bytes) => sum + bytes, 0)).toBe(await exact("all"));
  await expect(dialog.getByRole("row", { name: /Unused tops.*Bay 4/ })).toBeVisible();
  await page.keyboard.press("Escape");
  await expect(dialog).toBeHidden();
  await expect(page.getByRole("button", { name: "Waterfall" })).toBeFocused();
});

test("a volume with its file system, what is used and what is left; one that is too large is mended by a press", async ({
  page,
}) => {
  await firstVisit(page);
  await page.getByRole("button", { name: "Volumes" }).click();
  await page.getByRole("button", { name: "Add a volume of the rest" }).click();
  await page.getByLabel("File system").selectOption("ext4");
  await page.getByLabel("Used today").fill("7,4 TB");
  await page.getByLabel("Size", { exact: true }).fill("20 TB");
  await page.getByRole("button", { name: "Save" }).click();
  await page.getByRole("button", { name: "Done" }).click();
  await expect(page.getByText(/ask for 4\.03\sTB more than it has/)).toBeVisible();
  await page.getByRole("button", { name: /^Make “Volume 1” 15\.97\sTB/ }).click();
  await expect(page.getByText(/more than it has/)).toBeHidden();
  await expect(page.getByRole("row", { name: /Left to fill 4\.64\sTB/ })).toBeVisible();
  await saved(page);
  await page.reload();
  await expect(page.getByRole("row", { name: /Reserved for root − 798\.5\sGB/ })).toBeVisible();
});

test("times come with their range, and the speed with what holds it back", async ({ page }) => {
  await firstVisit(page);
  await page.getByRole("button", { name: "Times and speed" }).click();
  const row = page.getByRole("row", { name: /The 4\sTB drive in bay 1/ });
  await expect(row).toContainText(/12 h \(8\.0 to 20\)/);
  await expect(page.getByText(/long reads about 117 MB\/s, held back by the network/)).toBeVisible();
  await page.getByRole("radio", { name: "10 GbE" }).click();
  await expect(page.getByText(/long reads about 450 MB\/s, held back by the drives/)).toBeVisible();
});

test("a list of drives comes in as CSV and goes out again; mistakes are told by line and lose nothing", async ({
  page,
}) => {
  await firstVisit(page);
  await page.getByRole("button", { name: "More ways to bring drives in" }).click();
  await page.getByRole("menuitem", { name: "Bring in a list (CSV)…" }).click();
  const field = page.getByRole("textbox", { name: "List of drives" });
  await field.fill("size;serial;price\n8 TB;A-1;149,90\nbig;A-2;1");
  await page.getByRole("button", { name: "Put on the shelf" }).click();
  await expect(page.getByRole("alert").filter({ hasText: "Line 3" })).toBeVisible();
  await field.fill("size;serial;price\n8 TB;A-1;149,90");
  await page.getByRole("button", { name: "Put on the shelf" }).click();
  await expect(page.getByRole("button", { name: /^8\sTB drive on the shelf \(serial A-1\)/ })).toBeVisible();
  await page.getByRole("button", { name: "More ways to bring drives in" }).click();
  const download = page.waitForEvent("download");
  await page.getByRole("menuitem", { name: "Save the drives as CSV" }).click();
  expect(await readFile(await (await download).path(), "utf8")).toContain("8001563222016,,A-1,149.9,hdd");
});

test("a spare and another layout of the catalogue", async ({ page }) => {
  await firstVisit(page);
  await page.getByLabel("Drives to add").fill("12 TB");
  await page.getByRole("button", { name: "Add", exact: true }).click();
  await page.getByRole("button", { name: /^12\sTB drive on the shelf/ }).click();
  await page.getByRole("button", { name: "Add to a pool" }).click();
  await page.getByRole("menuitem", { name: "Images", exact: true }).first().hover();
  await page.getByRole("menuitem", { name: "Hot spare" }).click();
  await expect(page.getByRole("button", { name: /^12\sTB drive in bay 5, hot spare of Images/ })).toBeVisible();
  await expect(page.getByRole("row", { name: /Hot spares − 12\.00\sTB/ })).toBeVisible();
  await page.getByRole("button", { name: /^Layout of Images/ }).click();
  await page.getByRole("menuitemradio", { name: /2 copies.*13\.98\sTB/ }).click();
  await expect(page.getByText("Your box does not offer two copies of every chunk.")).toBeVisible();
  await expect(page.getByText(/Whether more is survived depends on where the box put the data/)).toBeVisible();
});

test("RAID 50 is offered as such for six drives, and is one act to undo", async ({ page }) => {
  await newPlan(page);
  await page.getByRole("button", { name: "One bay more" }).click();
  await page.getByRole("button", { name: "One bay more" }).click();
  await page.getByLabel("Drives to add").fill("6 × 4 TB");
  await page.getByRole("button", { name: "Add", exact: true }).click();
  await expect(page.getByRole("list", { name: "Drives on the shelf" }).getByRole("listitem")).toHaveCount(6);
  for (const drive of await page.getByRole("list", { name: "Drives on the shelf" }).getByRole("listitem").all())
    await drive.getByRole("button").first().click();
  await page.getByRole("button", { name: "Make a group" }).click();
  await page.getByRole("menuitem", { name: /RAID 50.*16\.00\sTB.*2 × 3 drives/ }).click();
  await expect(usable(page)).toHaveText(/16\.00\s*TB/);
  await expect(page.getByText("RAID 50", { exact: true })).toBeVisible();
  await expect(page.getByText("survived in 9 of 15 cases")).toBeVisible();
  await page.keyboard.press("Control+z");
  await expect(page.getByText("No pool yet.")).toBeVisible();
});

test("a box whose system is on a drive of its own does not start without it, though the pool is whole", async ({
  page,
}) => {
  const plan = boxOf("Own system drive", "linux-host", "raid5", [4, 4, 4], []);
  const small = { ...plan.drives[0]!, id: "s1", serial: "CAL-S1", bytes: 250_059_350_016, place: { bay: 5 } };
  await openPlan(page, { ...plan, drives: [...plan.drives, { ...small, contents: { kind: "system" } }] });
  await page.getByRole("button", { name: /What if the 4\sTB drive in bay 1/ }).click();
  await expect(page.getByRole("heading", { name: "Nothing is lost; one drive is missing" })).toBeVisible();
  const gone = page.getByText("The box's system is gone with it: it does not start until it is set up again.");
  await expect(gone).toBeHidden();
  await page.getByRole("button", { name: "Make whole again" }).click();
  await page.getByRole("button", { name: /What if the 250\sGB drive in bay 5/ }).click();
  await expect(page.getByRole("heading", { name: "This pool is not affected" })).toBeVisible();
  await expect(gone).toBeVisible();
});
