import { expect, test } from "@playwright/test";
import { withDrive } from "../../src/core/testing/boxWith";
import { boxOf, openPlan, saved, usable } from "./workbench";

const files = { volumes: [{ id: "v1", name: "Files", bytes: 7e12, fileSystem: "ext4" as const, usedBytes: 3e12 }] };

test("what is to be known of a step is said before it is planned, where it is made and where it is edited", async ({
  page,
}) => {
  const plan = boxOf("Known before", "linux-host", "raid5", [4, 4, 4], [4, 4], files);
  const worn = withDrive(plan, "x1", {
    contents: { kind: "data" },
    health: { state: "watch", reallocatedSectors: 24 },
  });
  await openPlan(page, { ...worn, steps: [{ id: "s1", kind: "verify", pool: "p1" }] });
  await page
    .getByRole("list", { name: "Steps", exact: true })
    .getByRole("button", { name: /^1 ?Check/ })
    .click();
  await page.getByRole("button", { name: /^4\sTB drive on the shelf.*CAL-X1/ }).click();
  await page.getByRole("button", { name: "Add to a pool" }).click();
  await page.getByRole("menuitem", { name: "Shared", exact: true }).first().hover();
  await page.getByRole("menuitem", { name: "Hot spare" }).click();
  const asked = page.getByRole("group", { name: "A change to plan" });
  await expect(asked).toContainText("Everything on it is erased. It cannot be undone: only a backup brings it back.");
  await expect(asked).toContainText("24 worn-out sectors. Test it before use");
  await asked.getByRole("checkbox", { name: "test first" }).check();
  await expect(asked.getByText(/Test it before use/)).toBeHidden();
  await asked.getByRole("button", { name: "Plan it" }).click();
  const steps = page.getByRole("list", { name: "Steps", exact: true });
  await expect(steps.getByRole("button", { name: /^3/ })).toContainText("as hot spare");

  await page.getByRole("button", { name: "More about step 1" }).click();
  await page.getByRole("menuitem", { name: /^Edit/ }).click();
  await page.getByLabel("Whom the box favours meanwhile").selectOption({ label: "Its users" });
  await page.getByRole("button", { name: "Save" }).click();
  await expect(steps.getByRole("button", { name: /^1/ })).toContainText(/23 h/);
  await saved(page);
});

test("drives of one group that are selected are replaced together where the pool bears it", async ({ page }) => {
  await openPlan(page, boxOf("Together", "linux-host", "raid6", [4, 4, 4, 4], [], files));
  for (const bay of [1, 2])
    await page
      .getByRole("button", { name: new RegExp(`^4\\sTB drive in bay ${bay}`) })
      .first()
      .click();
  await page.getByRole("button", { name: "Replace these…" }).click();
  const dialog = page.getByRole("dialog");
  await expect(dialog.getByText(/2 drives of Shared are replaced by 6\sTB drives, one after the other/)).toBeVisible();
  await dialog.getByRole("checkbox", { name: /all at once/ }).check();
  await expect(dialog.getByText(/all at once: all are pulled, and the new ones filled in one go/)).toBeVisible();
  await dialog.getByRole("button", { name: /^Plan these/ }).click();
  await expect(page.getByRole("list", { name: "Steps", exact: true })).toContainText("Replace 4 TB in bay 2");
});

test("a desktop mirror with six bays says so; how many drives a layout wants is asked", async ({ page }) => {
  await openPlan(page, boxOf("Two drives", "desktop-mirror", "raid1", [4, 4], []));
  await page.getByRole("button", { name: "Give it 2 bays" }).click();
  await expect(page.getByText("2 bays", { exact: true })).toBeVisible();
  await page.getByRole("button", { name: /^Kind of box/ }).click();
  await page.getByRole("menuitem", { name: /What can your box do/ }).click();
  const fewest = page.getByRole("group", { name: "How many drives does it want at least?" });
  await fewest.getByLabel("RAID 1").selectOption({ label: "3 drives" });
  await expect(fewest.getByLabel("RAID 1 (the set has 2)")).toHaveValue("3");
  await page.getByRole("link", { name: /^Back to/ }).click();
  await expect(page.getByText(/RAID 1 cannot be made of 2 drives. Needs 3 drives: 1 more./)).toBeVisible();
});

test("a volume keeps a share; data on a drive of no pool is entered, and what a failure takes of it is told", async ({
  page,
}) => {
  const plan = boxOf("Old drive", "parity-drive", "parity-drive-1", [4, 4, 8], [1], files);
  await openPlan(page, withDrive(plan, "x1", { contents: { kind: "data", detail: "/srv/old" } }));
  await page.getByRole("button", { name: "Volumes" }).click();
  const dialog = page.getByRole("dialog");
  await dialog.getByLabel("For snapshots or the system, %").fill("10");
  await dialog.getByRole("button", { name: "Save" }).click();
  await expect(dialog.getByText(/For snapshots or the system 700\.0\sGB/)).toBeVisible();
  await dialog.getByRole("button", { name: "Done" }).click();
  await expect(usable(page)).toHaveText(/8\.00\s*TB/);
  await page.getByRole("link", { name: "Data" }).click();
  await page.getByRole("button", { name: "Add data" }).click();
  await dialog.getByLabel("Name").fill("Letters");
  await dialog.getByLabel("Where it is").selectOption({ label: "the 1 TB drive on the shelf (serial CAL-X1)" });
  await dialog.getByLabel("Size today").fill("300 GB");
  await dialog.getByRole("button", { name: "Save" }).click();
  const letters = page.getByRole("list", { name: "Data sets" }).getByRole("listitem");
  await expect(letters).toContainText(/Letters 300\.0\sGB.*on the 1\sTB drive on the shelf/);
  await expect(letters).toContainText("Lost.");
});
