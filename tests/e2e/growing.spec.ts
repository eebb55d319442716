import { expect, test, type Page } from "@playwright/test";
import type { Plan } from "../../src/core/document/plan";
import { boxOf, dragTo, openPlan, saved, tabTo, usable } from "./workbench";

/** Puts a drive of the shelf on a bay with the mouse. */
const drop = (page: Page, serial: string, bay: number): Promise<void> =>
  dragTo(
    page,
    page
      .getByRole("list", { name: "Drives on the shelf" })
      .getByRole("button", { name: new RegExp(`serial ${serial}\\)$`) })
      .first(),
    page
      .getByRole("list", { name: "Bays" })
      .getByRole("listitem")
      .nth(bay - 1),
    new RegExp(`^Over bay ${bay}\\b`),
  );

const planning = (page: Page) => page.getByLabel("Plan what I do next as a step").check();
const pending = (page: Page) => page.getByRole("group", { name: "A change to plan" });
const steps = (page: Page) => page.getByRole("list", { name: "Steps" }).getByRole("button", { name: /^\d/ });
const slider = (page: Page) => page.getByRole("slider", { name: "Moment of the plan" });

test("all drives one by one: a plateau, and everything at once with the claim", async ({ page }) => {
  await openPlan(page, boxOf("One by one", "classic-raid", "raid5", [4, 4, 4], [8, 8, 8]));
  await planning(page);
  for (const n of [1, 2, 3]) {
    await drop(page, `CAL-X${n}`, n);
    await expect(pending(page)).toContainText(/for about 12 hours, one more failed drive would lose data/);
    if (n < 3) await pending(page).getByText("then use the new space").click();
    await page.getByRole("button", { name: "Plan it", exact: true }).click();
    await expect(steps(page)).toHaveCount(n < 3 ? n : 4);
  }
  await expect(usable(page)).toHaveText(/16\.00/);
  await slider(page).focus();
  for (const expected of [/8\.00/, /8\.00/, /8\.00/, /8\.00/]) {
    await page.keyboard.press("ArrowLeft");
    await expect(usable(page)).toHaveText(expected);
  }
  await page.keyboard.press("End");
  await page.keyboard.press("ArrowLeft");
  const step = page.getByRole("region", { name: "The chosen step" });
  await expect(step).toContainText(
    /The 4\sTB drive in bay 3 \(serial CAL-D3\) is pulled and replaced by the 8\sTB drive on the shelf \(serial CAL-X3\)/,
  );
  await expect(step).toContainText(/The 8\sTB drive on the shelf \(serial CAL-X3\) is erased\./);
  await expect(step).toContainText(/one more failed drive would lose data/);
  await page.getByRole("button", { name: "In words" }).click();
  await expect(page.getByRole("dialog")).toContainText(
    /Four steps over .*Usable space: 8\.00\sTB → 16\.00\sTB, all of it on day/,
  );
});

test("a mirror to double parity in one jump is split into the two steps that the box makes", async ({ page }) => {
  await openPlan(page, boxOf("Levels", "classic-raid", "raid1", [4, 4], [4, 4]));
  await planning(page);
  await page.getByRole("button", { name: /^Layout of Shared/ }).click();
  await page.getByRole("menuitemradio", { name: /^RAID 6/ }).click();
  await expect(pending(page)).toContainText("one level at a time");
  await pending(page).getByRole("button", { name: "Split it into 2 steps" }).click();
  await expect(steps(page)).toHaveText([/Back up/, /To RAID 5 with 4\sTB/, /To RAID 6 with 4\sTB/]);
  await expect(usable(page)).toHaveText(/8\.00/);
  await expect(page.getByRole("heading", { name: "Survives the loss of any 2 drives" })).toBeVisible();
});

test("a hybrid is widened: its space is there when the rewrite has ended", async ({ page }) => {
  await openPlan(page, boxOf("Hybrid", "hybrid-box", "hybrid-1", [4, 4, 8], [8]));
  await planning(page);
  await drop(page, "CAL-X1", 4);
  await expect(pending(page)).toContainText(/Hybrid, one drive safe of 4 drives: \+/);
  await page.getByRole("button", { name: "Plan it", exact: true }).click();
  await expect(steps(page)).toHaveText([/Back up/, /Widen by 8\sTB/]);
  await expect(usable(page)).toHaveText(/15\.97/);
  await slider(page).focus();
  await page.keyboard.press("Home");
  await expect(usable(page)).toHaveText(/7\.98/);
});

test("a drive more for a copies pool: the two forgotten grow steps are found and mended", async ({ page }) => {
  const volume = {
    id: "v1",
    name: "Photos",
    bytes: 3_900_000_000_000,
    fileSystem: "btrfs" as const,
    usedBytes: 1_000_000_000_000,
  };
  await openPlan(page, boxOf("Copies", "chunk-copies", "copies-2", [4, 4], [8], { volumes: [volume] }));
  await planning(page);
  await drop(page, "CAL-X1", 3);
  await pending(page).getByText("then use the new space").click();
  await page.getByRole("button", { name: "Plan it", exact: true }).click();
  const step = page.getByRole("region", { name: "The chosen step" });
  await expect(step).toContainText("your files cannot use it");
  await step.getByRole("button", { name: "Add the steps: grow the volume, then the file system" }).click();
  await expect(steps(page)).toHaveText([/Widen by 8\sTB/, /Grow the volume/, /Grow the file system/]);
  await page.getByRole("button", { name: "More about step 3" }).click();
  await page.getByRole("menuitem", { name: "Remove" }).click();
  await steps(page).nth(1).click();
  await expect(step).toContainText("no step grows its file system");
  await step.getByRole("button", { name: "Add the step: grow the file system" }).click();
  await expect(steps(page)).toHaveCount(3);
  await expect(step).not.toContainText("no step grows");
});

test("steps are kept: reloaded in the middle, passed over, moved, undone", async ({ page }) => {
  const plan = boxOf("Kept", "classic-raid", "raid5", [4, 4, 4], [4, 4]);
  await openPlan(page, {
    ...plan,
    steps: [
      { id: "s1", kind: "widen-group", group: "g1", drives: ["x1"] },
      { id: "s2", kind: "widen-group", group: "g1", drives: ["x2"] },
      { id: "s3", kind: "verify", pool: "p1" },
    ],
  });
  await steps(page).nth(1).click();
  await expect(usable(page)).toHaveText(/16\.00/);
  await page.getByRole("button", { name: "More about step 1" }).click();
  await page.getByRole("menuitem", { name: "Skip it" }).click();
  await expect(usable(page)).toHaveText(/12\.00/);
  await page.getByRole("button", { name: "More about step 3" }).click();
  await page.getByRole("menuitem", { name: "Move earlier" }).click();
  await expect(steps(page)).toHaveText([/Widen/, /Check/, /Widen/]);
  await saved(page);
  await page.reload();
  await expect(steps(page)).toHaveText([/Widen/, /Check/, /Widen/]);
  await page.keyboard.press("Control+z");
  await page.keyboard.press("Control+z");
  await expect(steps(page)).toHaveText([/Widen/, /Widen/, /Check/]);
  await page.getByRole("button", { name: /^Move step 3/ }).focus();
  await page.keyboard.press("Space");
  await page.waitForTimeout(250);
  await page.keyboard.press("ArrowUp");
  await page.waitForTimeout(250);
  await page.keyboard.press("Space");
  await expect(steps(page)).toHaveText([/Widen/, /Check/, /Widen/]);
});

test("what cannot be carried out says why, and later steps still show what can be shown", async ({ page }) => {
  const plan = boxOf("Blocked", "classic-raid", "raid5", [4, 4, 4], [3, 4]);
  await openPlan(page, {
    ...plan,
    steps: [
      { id: "s1", kind: "replace-drive", drive: "d1", by: "x1", how: "pulled" },
      { id: "s2", kind: "widen-group", group: "g1", drives: ["x2"] },
    ],
  });
  await steps(page).nth(0).click();
  const step = page.getByRole("region", { name: "The chosen step" });
  await expect(step).toContainText("It cannot be carried out as planned.");
  await expect(step).toContainText(/The 3\sTB drive on the shelf \(serial CAL-X1\) is too small by 1\.00\sTB/);
  await steps(page).nth(1).click();
  await expect(usable(page)).toHaveText(/12\.00/);
});

test("a layout in Compare says which planned steps it would break", async ({ page }) => {
  const plan = boxOf("Broken", "classic-raid", "raid5", [4, 4, 4], [4]);
  await openPlan(page, {
    ...plan,
    steps: [{ id: "s1", kind: "change-level", group: "g1", layout: "raid6", drives: ["x1"] }],
  });
  await page.getByRole("link", { name: "Compare" }).click();
  await page.getByRole("button", { name: "Apply RAID 1", exact: true }).click();
  const dialog = page.getByRole("dialog", { name: "Apply RAID 1?" });
  await expect(dialog).toContainText("One planned step could then no longer be carried out.");
  await dialog.getByRole("button", { name: "Apply it" }).click();
  await expect(page.getByRole("article", { name: "RAID 1", exact: true })).toContainText("as it is in the plan");
});

test("a plan of a thousand steps opens, is gone through, and undoes", async ({ page }) => {
  const plan = boxOf("Long", "classic-raid", "raid5", [4, 4, 4], [8]);
  const long: Plan = {
    ...plan,
    steps: Array.from({ length: 1000 }, (_, i): Plan["steps"][number] =>
      i % 3 === 0
        ? { id: `s${i}`, kind: "verify", pool: "p1" }
        : {
            id: `s${i}`,
            kind: "replace-drive",
            drive: i % 2 === 0 ? "d1" : "x1",
            by: i % 2 === 0 ? "x1" : "d1",
            how: "pulled",
          },
    ),
  };
  await openPlan(page, long);
  await expect(slider(page)).toHaveAttribute("aria-valuemax", "1000");
  await slider(page).focus();
  await page.keyboard.press("End");
  await expect(page.getByRole("heading", { name: /After step 1000 of 1000/ })).toBeVisible();
  await page.getByRole("button", { name: "More about step 1000" }).click();
  await page.getByRole("menuitem", { name: "Remove" }).click();
  await expect(slider(page)).toHaveAttribute("aria-valuemax", "999");
  await page.keyboard.press("Control+z");
  await expect(slider(page)).toHaveAttribute("aria-valuemax", "1000");
});

test("by keyboard alone: a drive put on another, planned, and gone through", async ({ page }) => {
  await openPlan(page, boxOf("Keys", "classic-raid", "raid1", [4, 4], [8, 8]));
  await tabTo(page, /^Plan what I do next/, 120).catch(() => page.getByLabel("Plan what I do next as a step").focus());
  await page.keyboard.press("Space");
  const chip = page.getByRole("button", { name: /^8\sTB drive on the shelf \(serial CAL-X1/ });
  await chip.focus();
  await page.keyboard.press("m");
  await expect(page.getByText(/Over /).first()).toBeAttached();
  await page.keyboard.press("ArrowRight");
  await expect(page.getByText(/Over bay 1, in place of/)).toBeAttached();
  await page.keyboard.press("m");
  await expect(pending(page)).toBeVisible();
  await tabTo(page, /^Plan it$/, 120);
  await page.keyboard.press("Enter");
  await expect(steps(page).first()).toContainText(/Replace 4\sTB in bay 1 by 8\sTB/);
  await tabTo(page, /^Moment of the plan$/, 160);
  await page.keyboard.press("Home");
  await expect(slider(page)).toHaveAttribute("aria-valuetext", /^Now, before the first step\./);
  await page.keyboard.press("ArrowRight");
  await expect(page.getByRole("region", { name: "The chosen step" })).toBeVisible();
});

test("on a phone the steps and the staircase are there, and nothing is wider than the screen", async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  const plan = boxOf("Phone", "classic-raid", "raid5", [4, 4, 4], [4]);
  await openPlan(page, { ...plan, steps: [{ id: "s1", kind: "widen-group", group: "g1", drives: ["x1"] }] });
  await steps(page).first().click();
  await expect(page.getByRole("region", { name: "The chosen step" })).toBeVisible();
  await slider(page).focus();
  await page.keyboard.press("Home");
  await expect(usable(page)).toHaveText(/8\.00/);
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
});
