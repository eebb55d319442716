import { expect, test } from "@playwright/test";
import { execFileSync } from "node:child_process";
import { readFileSync } from "node:fs";
import { boxOf, dragTo, newPlan, openPlan, saved, tabTo, usable } from "./workbench";

const capture = (name: string) => readFileSync(`src/exchange/inventory/captures/${name}.json`, "utf8");

test("an inventory is pasted and a pool is built by keyboard alone; it is there after a reload", async ({ page }) => {
  await newPlan(page);
  await tabTo(page, /^Bring in drives/);
  await page.keyboard.press("Enter");
  await tabTo(page, /^Output of the command/);
  await page.keyboard.insertText(capture("six-bay-home-server"));
  await tabTo(page, /^Read$/);
  await page.keyboard.press("Enter");
  await expect(page.getByText(/^Left out:.*2 loop devices/)).toBeVisible();
  await expect(page.getByText("Carries the running system: mounted at /, /boot/efi")).toBeVisible();
  await tabTo(page, /^Take 4 drives$/);
  await page.keyboard.press("Enter");
  await expect(page.getByRole("list", { name: "Drives on the shelf" }).getByRole("listitem")).toHaveCount(4);

  // One drive is carried to bay 2 with M and the arrow keys, the rest are seated with the group.
  await tabTo(page, /^8\sTB drive on the shelf/);
  await page.keyboard.press("m");
  await expect(page.getByText(/^(Picked up|Over)/)).toBeAttached();
  await page.keyboard.press("ArrowRight");
  await page.keyboard.press("ArrowRight");
  // Quick presses are not lost: the second lands on bay 2, however busy the machine is.
  await expect(page.getByText("Over bay 2, free.")).toBeAttached();
  await page.keyboard.press("m");
  await expect(page.getByRole("button", { name: /^8\sTB drive in bay 2/ })).toBeVisible();

  for (const drive of [
    /^4\sTB drive on the shelf \(serial TJ4-0417\)$/,
    /^4\sTB drive on the shelf \(serial TJ4-0422\)$/,
    /^8\sTB drive in bay 2 \(serial TJ8-1190\)$/,
  ]) {
    await tabTo(page, drive);
    await page.keyboard.press("Enter");
  }
  await tabTo(page, /^Make a group/);
  await page.keyboard.press("Enter");
  await expect(page.getByRole("menuitemradio", { name: /RAID 1 / })).toBeFocused();
  // A menu moves the focus a moment after the key, so each press waits for the one before.
  await page.keyboard.press("ArrowDown");
  await expect(page.getByRole("menuitemradio", { name: /RAID 1 / })).not.toBeFocused();
  await page.keyboard.press("ArrowDown");
  await expect(page.getByRole("menuitemradio", { name: /RAID 5/ })).toBeFocused();
  await page.keyboard.press("Enter");
  await expect(usable(page)).toHaveText(/8\.00\s*TB/);
  await saved(page);
  await page.reload();
  await expect(usable(page)).toHaveText(/8\.00\s*TB/);
  await page.keyboard.press("Control+z");
  await expect(page.getByText("No pool yet.")).toBeVisible();
});

test("a file of drives is dropped in: this machine's own", async ({ page }) => {
  await newPlan(page);
  await page.getByRole("button", { name: /^Bring in drives/ }).click();
  const dialog = page.getByRole("dialog");
  await dialog.locator('input[type="file"]').setInputFiles({
    name: "lsblk.json",
    mimeType: "application/json",
    buffer: execFileSync("lsblk", ["--json", "--bytes", "--output-all"]),
  });
  await expect(dialog.getByText("Choose the drives to put on the shelf.")).toBeVisible();
});

test("what is no inventory is said, and what was typed stays", async ({ page }) => {
  await newPlan(page);
  await page.getByRole("button", { name: /^Bring in drives/ }).click();
  const box = page.getByLabel("Output of the command");
  await box.fill("NAME MAJ:MIN RM SIZE\nsda 8:0 0 3.6T");
  await page.getByRole("button", { name: "Read" }).click();
  await expect(page.getByRole("alert").filter({ hasText: "This is lsblk's table" })).toBeVisible();
  await expect(box).toHaveValue(/sda 8:0/);
});

test("drives typed in one line; a slip is explained", async ({ page }) => {
  await newPlan(page);
  const line = page.getByLabel("Drives to add");
  await line.fill("6 × 4 TB");
  await expect(page.getByText(/6 × 4\sTB hard disk, 4\s000\s787\s030\s016\sB/)).toBeVisible();
  await line.press("Enter");
  await expect(page.getByRole("list", { name: "Drives on the shelf" }).getByRole("listitem")).toHaveCount(6);
  await line.fill("6 × four");
  await line.press("Enter");
  await expect(page.getByRole("alert").filter({ hasText: '"four" is not a drive' })).toBeVisible();
  await expect(line).toHaveValue("6 × four");
});

test("a drive is dragged to a bay, onto another, and back to the shelf", async ({ page }) => {
  await newPlan(page);
  await page.getByLabel("Drives to add").fill("4 TB + 8 TB");
  await page.getByRole("button", { name: "Add", exact: true }).click();
  const bays = page.getByRole("list", { name: "Bays" }).getByRole("listitem");
  await dragTo(page, page.getByRole("button", { name: /^4\sTB drive on the shelf/ }), bays.nth(2), /^Over bay 3/);
  await expect(page.getByRole("button", { name: /^4\sTB drive in bay 3/ })).toBeVisible();
  await dragTo(page, page.getByRole("button", { name: /^8\sTB drive on the shelf/ }), bays.nth(2), /^Over bay 3/);
  await expect(page.getByRole("button", { name: /^8\sTB drive in bay 3/ })).toBeVisible();
  await expect(page.getByRole("button", { name: /^4\sTB drive on the shelf/ })).toBeVisible();
  await dragTo(
    page,
    page.getByRole("button", { name: /^8\sTB drive in bay 3/ }),
    page.getByRole("region", { name: "Shelf" }),
    /^Over the shelf/,
  );
  await expect(page.getByRole("list", { name: "Drives on the shelf" }).getByRole("listitem")).toHaveCount(2);
});

test("a drive is edited; two pools stand side by side; a group is taken apart", async ({ page }) => {
  await newPlan(page);
  await page.getByLabel("Drives to add").fill("4 × 4 TB");
  await page.getByRole("button", { name: "Add", exact: true }).click();
  await page
    .getByRole("button", { name: /^More about the 4\sTB drive/ })
    .first()
    .click();
  await page.getByRole("menuitem", { name: "Edit…" }).click();
  const dialog = page.getByRole("dialog");
  await dialog.getByLabel("Serial number").fill("AB12");
  await dialog.getByLabel("Size", { exact: true }).fill("3.64 TiB");
  await expect(dialog.getByText(/4\s000\s787\s030\s016\sB/)).toBeVisible();
  await dialog.getByRole("button", { name: "Save" }).click();
  await expect(page.getByRole("button", { name: /^4\sTB drive on the shelf \(serial AB12\)/ })).toBeVisible();

  const shelf = page.getByRole("list", { name: "Drives on the shelf" });
  await expect(shelf.getByRole("listitem").nth(3)).toBeVisible();
  for (const pool of ["Pool 1", "Pool 2"]) {
    for (const drive of (await shelf.getByRole("listitem").all()).slice(0, 2))
      await drive.getByRole("button").first().click();
    await page.getByRole("button", { name: "Make a group" }).click();
    await page.getByRole("menuitemradio", { name: /RAID 1 / }).click();
    await expect(page.getByRole("button", { name: new RegExp(`^Layout of ${pool}`) })).toBeVisible();
  }
  await expect(page.getByText("Usable in 2 pools")).toBeVisible();
  await expect(page.getByRole("radio", { name: "Pool 2" })).toBeVisible();
  await page.getByRole("button", { name: /^Layout of Pool 2/ }).click();
  await page.getByRole("menuitem", { name: "Dissolve the group" }).click();
  await expect(page.getByRole("button", { name: /^Layout of Pool 2/ })).toBeHidden();
  await page.getByRole("button", { name: "Undo", exact: true }).last().click();
  await expect(page.getByRole("button", { name: /^Layout of Pool 2/ })).toBeVisible();
});

test("the kind of box changes what it offers and what it keeps", async ({ page }) => {
  await newPlan(page);
  await page.getByLabel("Drives to add").fill("3 × 4 TB");
  await page.getByRole("button", { name: "Add", exact: true }).click();
  // They come when what reads them has been loaded.
  await expect(page.getByRole("list", { name: "Drives on the shelf" }).getByRole("listitem")).toHaveCount(3);
  for (const drive of await page.getByRole("list", { name: "Drives on the shelf" }).getByRole("listitem").all())
    await drive.getByRole("button").first().click();
  await page.getByRole("button", { name: "Make a group" }).click();
  await page.getByRole("menuitemradio", { name: /RAID 5/ }).click();
  await expect(usable(page)).toHaveAttribute("title", /8\s001\s572\s306\s944/);
  await page.getByRole("button", { name: /^Kind of box/ }).click();
  await page.getByRole("menuitemradio", { name: /Linux software-RAID host/ }).click();
  await expect(usable(page)).toHaveAttribute("title", /8\s001\s302\s822\s912/);
});

test("where two drives are equally large, the owner says which holds the parity", async ({ page }) => {
  await openPlan(page, boxOf("Equal", "parity-drive", "parity-drive-1", [4, 8, 8], []));
  await page.getByRole("button", { name: /^Layout of Shared/ }).click();
  await page.getByRole("menuitem", { name: "Parity drive", exact: true }).press("ArrowRight");
  await expect(page.getByRole("menuitem", { name: /^✓ 8\sTB drive in bay 3/ })).toBeVisible();
  await expect(page.getByRole("menuitem", { name: /4\sTB drive in bay 1/ })).toHaveCount(0);
  await page.getByRole("menuitem", { name: /^8\sTB drive in bay 2/ }).press("Enter");
  await expect(page.getByRole("button", { name: "Undo: changed a group's options" })).toBeEnabled();
  await expect(usable(page)).toHaveText(/12\.00\s*TB/);
  await page.getByRole("button", { name: /^Layout of Shared/ }).click();
  await page.getByRole("menuitem", { name: "Parity drive", exact: true }).press("ArrowRight");
  await expect(page.getByRole("menuitem", { name: /^✓ 8\sTB drive in bay 2/ })).toBeVisible();
});
