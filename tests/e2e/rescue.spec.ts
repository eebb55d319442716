import { expect, test, type Page } from "@playwright/test";
import type { Drive, Plan, Pool, RuleSetId } from "../../src/core/document/plan";
import { oddDrives } from "../../src/core/document/samples/oddDrives";
import { sampleDrive } from "../../src/core/document/samples/sampleDrive";
import { emptyPlan } from "../../src/core/document/emptyPlan";
import { axeFindsNothing } from "./axe";
import { openPlan, saved, tabTo, usable } from "./workbench";

const inBays = (...sizes: number[]): Drive[] =>
  sizes.map((tb, i) => sampleDrive(`d${i + 1}`, tb, `TJ${tb}-10${i + 1}7`, { bay: i + 1 }));
const onShelf = (...sizes: number[]): Drive[] =>
  sizes.map((tb, i) => sampleDrive(`x${i + 1}`, tb, `TJ${tb}-20${i + 1}9`, { shelf: true }));
const volume = { id: "v1", name: "Music", bytes: 3e12, fileSystem: "ext4" as const, usedBytes: 1e12 };

function boxOf(
  set: RuleSetId,
  layout: "raid1" | "raid5" | "parity-drive-1",
  drives: Drive[],
  more: Partial<Pool> = {},
): Plan {
  const ids = drives.filter(({ place }) => "bay" in place).map(({ id }) => id);
  return {
    ...emptyPlan("Box in the hall"),
    box: { name: "Hall", bays: 6, rules: { set } },
    drives,
    pools: [
      {
        id: "p1",
        name: "Home",
        groups: [{ id: "g1", layout, drives: ids.filter((id) => !more.spares?.includes(id)) }],
        spares: [],
        volumes: [volume],
        ...more,
      },
    ],
  };
}

/** Says of a drive, from its menu, what has become of it. */
async function say(
  page: Page,
  drive: RegExp,
  what: "It has failed" | "It is not in the box" | "It is back, with all that was on it",
) {
  await page.getByRole("button", { name: drive }).click();
  await page.getByRole("menuitem", { name: what }).click();
  // As a person does, it is waited for what the page says of it.
  const told = {
    "It has failed": /^Undo: said that .* failed$/,
    "It is not in the box": /^Undo: said that .* not in the box$/,
    "It is back, with all that was on it": /^Undo: said that .* back$/,
  }[what];
  await expect(page.getByRole("button", { name: told })).toBeVisible();
}
const now = (page: Page) => page.getByRole("link", { name: "What to do now" }).first();
const step = (page: Page) => page.getByRole("listitem").and(page.locator("[aria-current=step]"));

/** Goes through the acts of the course until one with a heading is open. */
async function until(page: Page, heading: RegExp) {
  for (let i = 0; i < 12; i += 1) {
    if (await step(page).getByRole("heading", { name: heading }).isVisible()) return;
    await page.getByRole("button", { name: "Done, next" }).click();
  }
  await expect(step(page).getByRole("heading", { name: heading })).toBeVisible();
}

test("a mirror with a dead half is brought back with a third drive", async ({ page }) => {
  await openPlan(page, boxOf("desktop-mirror", "raid1", [...inBays(4, 4), ...onShelf(4, 3)]));
  const before = await usable(page).textContent();
  // A what-if first, told apart from the fact, which it becomes at a press.
  await page.getByRole("button", { name: /What if the 4\sTB drive in bay 2/ }).click();
  await expect(page.getByText("What if", { exact: true })).toBeVisible();
  await expect(now(page)).toBeHidden();
  await page.getByRole("button", { name: "It has really failed" }).click();
  await expect(page.getByText("What if", { exact: true })).toBeHidden();
  await expect(page.getByRole("heading", { name: "Nothing is lost; one drive has failed" })).toBeVisible();
  expect(await usable(page).textContent()).toBe(before);
  await saved(page);

  await now(page).click();
  await expect(page.getByRole("region", { name: "Is it safe?" })).toContainText(
    /All data on Home can be read\. Nothing is lost\..*If the 4\sTB drive in bay 1 .* fails, everything on Home is lost/,
  );
  await expect(page.getByRole("region", { name: "What not to do" })).toContainText("Do not pull any other drive");
  const fits = page.getByRole("region", { name: "What can take its place" });
  await expect(fits).toContainText(/TJ4-2019\) fits/);
  await expect(fits).toContainText(/TJ3-2029\) does not: it is too small by 1\.00\sTB/);
  await until(page, /Put the new drive in/);
  await expect(step(page).getByRole("heading")).toBeFocused();
  await page.getByRole("button", { name: /^Put 2 steps into the plan/ }).click();
  await expect(page.getByText("Its steps are in the plan.")).toBeVisible();
  await page.getByRole("link", { name: "See it on the box" }).click();
  await page.getByRole("button", { name: /^1 Rebuild 4\sTB in bay 2 on 4\sTB/ }).click();
  await expect(page.getByRole("heading", { name: "Survives the loss of any one drive" })).toBeVisible();
});

test("parity by schedule: from a dead drive to the schedule that runs again", async ({ page }) => {
  const drives = [...inBays(4, 4, 8), ...onShelf(4)];
  await openPlan(page, boxOf("scheduled-parity", "parity-drive-1", drives, { paritySchedule: { everyHours: 24 } }));
  await say(page, /^More about the 4\sTB drive in bay 1/, "It has failed");
  const findings = page.getByRole("list", { name: "Findings" });
  await expect(findings).toContainText("Stop the schedule of the parity first of all");
  await findings.getByRole("button", { name: "The schedule is stopped" }).click();
  await expect(findings).not.toContainText("Stop the schedule of the parity first of all");
  await page.getByRole("button", { name: "Undo" }).first().click();
  await now(page).click();
  await expect(page.getByRole("region", { name: "Is it safe?" })).toContainText(
    /cannot be read until they are restored/,
  );
  await expect(page.getByRole("region", { name: "What not to do" })).toContainText("Do not update the parity");
  await page.getByRole("button", { name: /^Put 4 steps into the plan/ }).click();
  await page.getByRole("link", { name: "See it on the box" }).click();
  for (const name of [
    /Pause the parity schedule/,
    /Restore 4\sTB/,
    /Check against the parity/,
    /Resume the parity schedule/,
  ])
    await expect(page.getByRole("button", { name }).first()).toBeVisible();
});

test("a spare takes over at once, and is replaced", async ({ page }) => {
  const drives = [...inBays(4, 4, 4, 4), ...onShelf(4)];
  await openPlan(page, boxOf("classic-raid", "raid5", drives, { spares: ["d4"] }));
  await say(page, /^More about the 4\sTB drive in bay 2/, "It has failed");
  await expect(page.getByText(/Another drive is being filled in the place of bay 2/)).toBeVisible();
  await now(page).click();
  await until(page, /^\d+\. Rebuild/);
  await expect(step(page)).toContainText("has taken over by itself and is being filled: wait");
  await until(page, /A spare again/);
  await page.getByRole("button", { name: /^Put 2 steps into the plan/ }).click();
  await page.getByRole("link", { name: "See it on the box" }).click();
  await expect(page.getByRole("button", { name: /4\sTB as hot spare/ }).first()).toBeVisible();
  // It was only loose: the step goes with the failure.
  await say(page, /^More about the failed 4\sTB drive in bay 2/, "It is back, with all that was on it");
  await expect(page.getByRole("button", { name: /Rebuild 4\sTB/ })).toHaveCount(0);
});

test("two dead in single parity: said plainly, and what comes back from where", async ({ page }) => {
  const plan = boxOf("classic-raid", "raid5", [...inBays(4, 4, 4), ...onShelf(4, 4)]);
  await openPlan(page, {
    ...plan,
    dataSets: [
      { id: "s1", name: "Scores", volume: "v1", bytes: 4e11, worth: "precious" },
      { id: "s2", name: "Films", volume: "v1", bytes: 6e11, worth: "useful" },
    ],
    backups: [
      {
        id: "b1",
        name: "Drive in the drawer",
        kind: "usb-drive",
        place: "here",
        everyDays: 14,
        keepsVersions: false,
        lastVerified: "2026-11-20",
        dataSets: ["s1"],
      },
    ],
  });
  await say(page, /^More about the 4\sTB drive in bay 1/, "It has failed");
  await say(page, /^More about the 4\sTB drive in bay 2/, "It is not in the box");
  await expect(page.getByRole("heading", { name: "Nothing here can be read" })).toBeVisible();
  await now(page).click();
  const safe = page.getByRole("region", { name: "Is it safe?" });
  await expect(safe).toContainText(/Nothing on Home can be read now: 2 drives are gone/);
  await expect(safe).toContainText(/Drive in the drawer holds Scores \(400(\.0)?\sGB\), at most 14 days old/);
  await expect(safe).toContainText("holds Films: that would be missing");
  await until(page, /Make the pool again/);
  // One of the two is only loose: with it back the data can be read again.
  await page.getByRole("button", { name: /Loose or dead/ }).click();
  await page.getByRole("button", { name: /^It answers again: the missing 4\sTB/ }).click();
  await expect(safe).toContainText("All data on Home can be read. Nothing is lost.");
});

test("a missing drive that was away for longer is put back in and filled again", async ({ page }) => {
  await openPlan(page, boxOf("classic-raid", "raid5", [...inBays(4, 4, 4), ...onShelf(4)]));
  await say(page, /^More about the 4\sTB drive in bay 2/, "It is not in the box");
  await expect(page.getByText(/^4\sTB missing$/)).toBeVisible();
  await now(page).click();
  await page.getByRole("button", { name: /Loose or dead/ }).click();
  await page.getByRole("button", { name: /^It was away for longer, and is filled again/ }).click();
  await until(page, /Put it back in/);
  await page.getByRole("link", { name: "See it on the box" }).click();
  await expect(page.getByRole("button", { name: /^1 Fill 4\sTB.* again/ })).toBeVisible();
});

test("a box that says degraded, and nobody knows which drive it is", async ({ page }) => {
  await openPlan(page, boxOf("classic-raid", "raid5", [...inBays(4, 4, 4), ...onShelf(4)]));
  await page.getByRole("link", { name: "Something is wrong…" }).click();
  const which = page.getByRole("region", { name: /you do not know which drive/ });
  await which.getByLabel(/prints a list/).fill("sda TJ4-1017 4.0T\nsdc TJ4-1037 4.0T");
  await which.getByRole("button", { name: "Find what is missing from it" }).click();
  await expect(which).toContainText("One of your drives is not in this list");
  await expect(which.getByRole("listitem")).toHaveText([/4\sTB drive in bay 2 \(serial TJ4-1027\)/]);
  await which.getByLabel(/names a serial/).fill("999");
  await which.getByRole("button", { name: "Find it by its serial" }).click();
  await expect(which).toContainText("No drive of this pool has that in its serial");
  await which.getByLabel(/light is red/).selectOption("Bay 3");
  await which.getByRole("button", { name: "Find it by its bay" }).click();
  await which.getByRole("button", { name: "It has failed" }).click();
  await expect(page.getByRole("region", { name: "What not to do" })).toBeVisible();
  await expect(page.getByRole("heading", { name: /^1\. Stop/ })).toBeVisible();
});

test("by keyboard only: the sample of odd drives opens on its failed drive and is brought back", async ({ page }) => {
  await openPlan(page, oddDrives);
  await expect(page.getByRole("heading", { name: "Nothing is lost; one drive has failed" })).toBeVisible();
  await tabTo(page, /^What to do now$/);
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { level: 1, name: "What to do now: Everything" })).toBeVisible();
  await tabTo(page, /^Done, next$/);
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: /^2\. Find the drive/ })).toBeFocused();
  await expect(page.getByText(/it ends in 1018/)).toBeVisible();
  await tabTo(page, /^Put 2 steps into the plan$/);
  await page.keyboard.press("Enter");
  await expect(page.getByText("Its steps are in the plan.")).toBeVisible();
});

test("on a phone: the list of plans leads to it, one act at a time, and it prints whole", async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await openPlan(page, oddDrives);
  await page.getByRole("link", { name: "Cortijo" }).click();
  const plans = page.getByRole("list", { name: "Plans" });
  await expect(plans).toContainText("Nothing is lost, but 1 drive is gone; if one more fails, data is lost.");
  await plans.getByRole("link", { name: "What to do now" }).click();
  await expect(page.getByRole("heading", { name: /^1\. Stop/ })).toBeVisible();
  await expect(page.getByText(/Read the serial|Compare the serial/)).toBeHidden();
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await page.emulateMedia({ media: "print" });
  await expect(page.getByText(/Compare the serial on its label/)).toBeVisible();
  await expect(page.getByText(/Have the whole pool checked/)).toBeVisible();
  await expect(page.getByRole("button", { name: "Done, next" })).toBeHidden();
});

test("what the box lists marks what is missing; the calendar, the step and Compare know of it", async ({ page }) => {
  const plan = boxOf("linux-host", "raid5", [...inBays(4, 4, 4), ...onShelf(4, 4)]);
  await openPlan(page, { ...plan, steps: [{ id: "s1", kind: "widen-group", group: "g1", drives: ["x2"] }] });
  await page.getByRole("button", { name: /^1 Widen by/ }).click();
  await expect(page.getByRole("region", { name: "The chosen step" })).toContainText(
    /If a drive fails meanwhile: Let it go on: it ends without the drive, with all data/,
  );
  await page.getByRole("button", { name: "Now", exact: true }).click();
  await page.getByRole("button", { name: /^Bring in drives of a box/ }).click();
  const device = (name: string, serial: string) => ({ name, type: "disk", size: 4000787030016, serial, rota: true });
  const listed = { blockdevices: [device("sda", "TJ4-1017"), device("sdc", "TJ4-1037")] };
  await page.getByLabel("Output of the command").fill(JSON.stringify(listed));
  await page.getByRole("button", { name: "Read", exact: true }).click();
  await page.getByRole("checkbox", { name: /4\sTB drive in bay 2 \(serial TJ4-1027\) is missing/ }).check();
  await page.getByRole("button", { name: "Take over" }).click();
  await expect(page.getByRole("heading", { name: "Nothing is lost; one drive is missing" })).toBeVisible();
  await now(page).click();
  await expect(step(page)).toContainText(/Was “Widen by 4\sTB.*” under way when it happened\?/);
  await page.getByRole("link", { name: "Compare" }).click();
  await expect(page.getByRole("group", { name: "These drives" }).getByText("bay 2")).toHaveCount(0);
  await page.getByRole("link", { name: "Calendar" }).click();
  await page.getByRole("button", { name: /^Give this plan dates/ }).click();
  await expect(page.getByText(/^Nothing is lost, but 1 drive is gone/)).toBeVisible();
});

test("axe finds nothing on what to do now", async ({ page }) => {
  await openPlan(page, oddDrives);
  await axeFindsNothing(page);
  await now(page).click();
  await expect(page.getByRole("heading", { name: /^1\. Stop/ })).toBeVisible();
  await axeFindsNothing(page);
  await page.getByRole("button", { name: /Loose or dead/ }).click();
  await page.getByRole("button", { name: /^It answers again/ }).click();
  await expect(page.getByRole("heading", { name: /you do not know which drive/ })).toBeVisible();
  await axeFindsNothing(page);
});
