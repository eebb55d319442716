import { expect, test, type Page } from "@playwright/test";
import { nominalBytes } from "../../src/core/bytes/nominalBytes";
import { sampleDrive } from "../../src/core/document/samples/sampleDrive";
import type { Plan } from "../../src/core/document/plan";
import { printBox, type PrintedWork } from "../../src/exchange/boxText/printBox";
import { capture } from "../captures/capture";
import { axeFindsNothing } from "./axe";
import { boxOf, openPlan, tabTo, usable } from "./workbench";

/** A Linux host with three drives of 4 TB under single parity, and a fourth on the shelf. */
function attic(): Plan {
  const plan = boxOf("Attic", "linux-host", "raid5", [4, 4, 4], [4]);
  const [pool] = plan.pools;
  const volume = { id: "v1", name: "Letters", bytes: 8_001_302_822_912, fileSystem: "ext4" as const, usedBytes: 3e12 };
  return { ...plan, pools: pool ? [{ ...pool, volumes: [volume] }] : [] };
}
const changed = (plan: Plan, id: string, changes: Partial<Plan["drives"][number]>): Plan => ({
  ...plan,
  drives: plan.drives.map((drive) => (drive.id === id ? { ...drive, ...changes } : drive)),
});
const source = (page: Page) => page.getByLabel("What the box prints");

/** Brings in what a box in this state prints. */
async function read(page: Page, box: Plan, work: PrintedWork[] = []) {
  const texts = printBox(box, work);
  await source(page).fill(`$ lsblk\n${texts.blockDevices}\n$ cat /proc/mdstat\n${texts.arrays}`);
  await page.getByRole("button", { name: "Read it", exact: true }).click();
}

test("a box read and taken as a plan, with its picture and its sizes to the byte", async ({ page }) => {
  await page.goto("/new");
  await page.getByRole("link", { name: "read a Linux box" }).click();
  await source(page).fill("nothing that a box prints");
  await page.getByRole("button", { name: "Read it", exact: true }).click();
  await expect(page.getByRole("alert").filter({ hasText: "There is no list of devices in this." })).toBeVisible();
  // Two files at once, as they were saved on the box.
  const files = (["lsblk.txt", "mdstat.txt"] as const).map((name) => ({
    name,
    mimeType: "text/plain",
    buffer: Buffer.from(capture("15-hybrid-1-four-sizes-top-idle", name)),
  }));
  await page.getByLabel(/choose them/).setInputFiles(files);
  await expect(page.getByRole("heading", { name: "This is your box, by what it has printed" })).toBeFocused();
  await expect(page.getByRole("listitem").filter({ hasText: /Hybrid \(one\).*on 4 drives/ })).toBeVisible();
  await expect(page.getByRole("row", { name: /md1.*1 849 688 064 B.*1 849 688 064 B.*agree/ })).toBeVisible();
  await expect(page.getByText("nvme0n1 is left out")).toBeVisible();
  await page.getByRole("button", { name: "Make a plan of it" }).click();
  await expect(usable(page)).toHaveText(/2\.50\s?GB/);
});

test("what no text prints is asked, and the answer changes the picture", async ({ page }) => {
  await page.goto("/new/box");
  await source(page).fill(
    capture("42-plain-drives-with-parity-drive", "lsblk.txt") +
      capture("42-plain-drives-with-parity-drive", "mdstat.txt"),
  );
  await page.getByRole("button", { name: "Read it", exact: true }).click();
  const asked = page.getByLabel(/^Does one of sda, sdc, sdd, and sde hold the parity/);
  await expect(asked).toHaveValue("sde");
  await expect(page.getByText("This is a guess, since it is called so, and is the largest.")).toBeVisible();
  await asked.selectOption({ label: "None: each drive is on its own" });
  await expect(page.getByText(/Separate \(separate drives\) on 4 drives/)).toBeVisible();
  await expect(page.getByText("This is a guess")).toHaveCount(0);
});

test("read again: as planned; a drive gone, which leads to what to do now", async ({ page }) => {
  await openPlan(page, attic());
  await page.getByRole("link", { name: "Box now" }).click();
  await expect(page.getByText("The box of this plan has not been read yet.")).toBeVisible();
  await read(page, attic());
  await expect(page.getByRole("heading", { name: "The box is as planned." })).toBeFocused();
  await page.getByRole("button", { name: "Read it again" }).click();
  await expect(page.getByText(/^Read last on .* it was as planned\.$/)).toBeVisible();
  await read(page, changed(attic(), "d2", { state: "missing", place: { shelf: true } }));
  await expect(page.getByRole("heading", { name: "1 thing is not as planned." })).toBeFocused();
  const row = page.getByRole("listitem").filter({ hasText: /The box does not list the 4\sTB drive in bay 2/ });
  await row.getByRole("button", { name: "Say that it is missing" }).click();
  await expect(page.getByRole("heading", { name: "The plan has the box as it is." })).toBeVisible();
  await page.getByRole("link", { name: "What to do now" }).first().click();
  await expect(page.getByRole("region", { name: "Is it safe?" })).toContainText(/can be read/);
});

test("what another box prints is known as such: nothing changes, and a plan of its own can be made of it", async ({
  page,
}) => {
  await openPlan(page, attic());
  await page.getByRole("link", { name: "Box now" }).click();
  const other = { ...attic(), drives: attic().drives.map((drive) => ({ ...drive, serial: `ZAR-${drive.id}` })) };
  await read(page, other);
  await expect(page.getByRole("heading", { name: /^This is another box/ })).toBeFocused();
  await expect(page.getByRole("button", { name: "Set the plan to how the box is" })).toHaveCount(0);
  await page.getByRole("button", { name: "Read something else" }).click();
  await expect(page.getByText("The box of this plan has not been read yet.")).toBeVisible();
  // What was pasted is still there.
  await expect(source(page)).toHaveValue(/ZAR-d1/);
  await page.getByRole("button", { name: "Read it", exact: true }).click();
  await page.getByRole("button", { name: "Make a plan of it" }).click();
  await expect(page.getByRole("button", { name: /serial ZAR-d1/ }).first()).toBeVisible();
});

test("another serial in a bay: the plan is set to how the box is, and that is undone", async ({ page }) => {
  const plan = attic();
  await openPlan(page, plan);
  await page.getByRole("link", { name: "Box now" }).click();
  const other = sampleDrive("d9", 4, "ORT-77", { bay: 2 });
  const box = changed(plan, "d2", { place: { shelf: true } });
  const groups = box.pools.flatMap((pool) => pool.groups.map((group) => ({ ...group, drives: ["d1", "d9", "d3"] })));
  await read(page, { ...box, drives: [...box.drives, other], pools: box.pools.map((pool) => ({ ...pool, groups })) });
  await expect(
    page.getByText(/In the place of the 4\sTB drive in bay 2.*the box has the 4\sTB drive in bay \d \(serial ORT-77\)/),
  ).toBeVisible();
  await page.getByRole("button", { name: "Set the plan to how the box is" }).click();
  await expect(page.getByRole("heading", { name: "The box is as planned." })).toBeVisible();
  await page.getByRole("link", { name: "Plan", exact: true }).click();
  await expect(page.getByRole("button", { name: /serial ORT-77/ }).first()).toBeVisible();
  await page.keyboard.press("Control+z");
  await expect(page.getByRole("button", { name: /serial ORT-77/ })).toHaveCount(0);
});

test("a rebuild that is under way, with its new end", async ({ page }) => {
  const failed = changed(changed(attic(), "d2", { state: "failed" }), "x1", { place: { bay: 4 } });
  const planned: Plan = { ...failed, steps: [{ id: "s1", kind: "rebuild", group: "g1", drive: "d2", by: "x1" }] };
  await openPlan(page, planned);
  await page.getByRole("link", { name: "Box now" }).click();
  await read(page, planned, [{ group: "g1", kind: "recovery", done: 0.4, minutesLeft: 240, by: "x1", drive: "d2" }]);
  await expect(page.getByRole("heading", { name: "A step of the plan is under way" })).toBeFocused();
  await expect(
    page.getByText(/It will have ended about .*: 4\.0 h \(.*\) from when it was read, between/),
  ).toBeVisible();
  await expect(page.getByText(/the rebuild is (39\.9|40\.0)\s%/)).toBeVisible();
  await page.getByRole("link", { name: "To the next step" }).click();
  await expect(page.getByRole("button", { name: /Rebuild 4\sTB/ }).first()).toBeVisible();
});

test("a file system that was not grown is planned to be grown at a press", async ({ page }) => {
  await openPlan(page, attic());
  await page.getByRole("link", { name: "Box now" }).click();
  const [pool] = attic().pools;
  const [volume] = pool?.volumes ?? [];
  if (!pool || !volume) throw new Error("The attic has a volume.");
  await read(page, { ...attic(), pools: [{ ...pool, volumes: [{ ...volume, fileSystemBytes: 4e12 }] }] });
  await page.getByRole("button", { name: "Plan to grow it" }).click();
  await page.getByRole("link", { name: "Plan", exact: true }).click();
  await expect(page.getByRole("button", { name: /^1 Grow the file system/ }).first()).toBeVisible();
});

test("by keyboard only: read, found different, said", async ({ page }) => {
  await openPlan(page, attic());
  await tabTo(page, /^Box now$/);
  await page.keyboard.press("Enter");
  await expect(source(page)).toBeVisible();
  await tabTo(page, /^What the box prints$/);
  const texts = printBox(changed(attic(), "d3", { state: "failed" }));
  await page.keyboard.insertText(texts.blockDevices + texts.arrays);
  await tabTo(page, /^Read it$/);
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: "1 thing is not as planned." })).toBeFocused();
  await tabTo(page, /^Say that it has failed$/);
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: "The plan has the box as it is." })).toBeVisible();
});

test("axe finds nothing on how the box is now", async ({ page }) => {
  await openPlan(page, attic());
  await page.getByRole("link", { name: "Box now" }).click();
  await expect(source(page)).toBeVisible();
  await axeFindsNothing(page);
  const box = changed(attic(), "d2", { bytes: nominalBytes(4000), state: "failed" });
  await read(page, box);
  await expect(page.getByRole("region", { name: "The box as it was read" })).toBeVisible();
  await axeFindsNothing(page);
});
