import { expect, test, type Page } from "@playwright/test";
import ICAL from "ical.js";
import { readFile } from "node:fs/promises";
import { getDocument } from "pdfjs-dist/legacy/build/pdf.mjs";
import { coveredClinic } from "../../src/core/document/samples/coveredClinic";
import type { Plan } from "../../src/core/document/plan";
import { boxOf, firstVisit, openPlan, saved, tabTo, usable } from "./workbench";

const steps = (page: Page) =>
  page.getByRole("list", { name: "Steps", exact: true }).getByRole("button", { name: /^\d/ });
const dialog = (page: Page) => page.getByRole("dialog");
const readyMade = async (page: Page) => {
  await page.getByRole("button", { name: /^Ready-made/ }).click();
  await expect(dialog(page).getByRole("list", { name: "Ready-made steps" })).toBeVisible();
};
const fact = (page: Page, name: string) =>
  dialog(page).locator("dt", { hasText: name }).locator("xpath=following-sibling::dd[1]");

const holdsData = (plan: Plan, ...ids: string[]): Plan => ({
  ...plan,
  drives: plan.drives.map((drive) => (ids.includes(drive.id) ? { ...drive, contents: { kind: "data" } } : drive)),
});
const volume = (bytes: number) => ({
  volumes: [{ id: "v1", name: "Files", bytes, fileSystem: "btrfs" as const, usedBytes: Math.round(bytes / 2) }],
});

interface Case {
  name: string;
  plan: Plan;
  does: RegExp;
  usable: RegExp;
  steps: RegExp[];
}

const cases: Case[] = [
  {
    name: "Larger drives, one by one",
    plan: boxOf("A", "classic-raid", "raid5", [4, 4, 4], [8, 8, 8], volume(7e12)),
    does: /3 drives of Shared are replaced by 8\sTB drives, one after the other/,
    usable: /8\.00\sTB → 16\.00\sTB/,
    steps: [
      /Test 8/,
      /Test 8/,
      /Test 8/,
      /Back up/,
      /Replace 4\sTB in bay 1/,
      /Replace 4\sTB in bay 2/,
      /Replace 4\sTB in bay 3/,
      /Use the new space/,
      /Grow the volume/,
      /Grow the file system/,
      /Check/,
    ],
  },
  {
    name: "One drive now, and one each year",
    plan: boxOf("B", "hybrid-box", "hybrid-1", [4, 4, 8], [], {}, 4),
    does: /gets an 8\sTB drive now and one each year, 3 in all/,
    usable: /→/,
    steps: [
      /Test 8/,
      /Back up/,
      /Widen by 8/,
      /Check/,
      /Test 8/,
      /Back up/,
      /Replace 4\sTB/,
      /Check/,
      /Test 8/,
      /Back up/,
      /Replace 4\sTB/,
      /Check/,
    ],
  },
  {
    name: "Another group of drives",
    plan: boxOf("C", "fixed-group", "raid5", [4, 4, 4], [4, 4, 4]),
    does: /join.*as another RAID 5 group/,
    usable: /7\.75\sTB → 15\.50\sTB/,
    steps: [/Test/, /Test/, /Test/, /Another group: RAID 5 of/],
  },
  {
    name: "From a mirror to RAID 5, and on to RAID 6",
    plan: boxOf("D", "classic-raid", "raid1", [4, 4], [4, 4], {}, 4),
    does: /from RAID 1 to RAID 5 and on to RAID 6 with 2 × 4\sTB more/,
    usable: /→ 8\.00\sTB/,
    steps: [/Test/, /Test/, /Back up/, /To RAID 5/, /To RAID 6/, /Check/],
  },
  {
    name: "A hybrid that survives the loss of two drives",
    plan: boxOf("E", "hybrid-box", "hybrid-1", [4, 4, 8, 8], []),
    does: /survives the loss of any two drives/,
    usable: /→/,
    steps: [/Back up/, /To Hybrid \(two\)/, /Check/],
  },
  {
    name: "A second parity drive",
    plan: boxOf("F", "parity-drive", "parity-drive-1", [4, 8, 4], [8]),
    does: /second parity drive of 8\sTB/,
    usable: /stays at/,
    steps: [/Test/, /Back up/, /To 2 parity drives/, /Check/],
  },
  {
    name: "A larger parity drive",
    plan: boxOf("G", "parity-drive", "parity-drive-1", [4, 8, 4], [12]),
    does: /A 12\sTB drive takes the place of the 8\sTB drive in bay 2 \(serial CAL-D2\) as the parity drive/,
    usable: /stays at/,
    steps: [/Test/, /Back up/, /Parity drive: 12\sTB for 8\sTB/, /Check/],
  },
  {
    name: "To another box or layout, through a backup",
    plan: boxOf("H", "fixed-group", "raid5", [4, 4, 4, 4], []),
    does: /copied to a backup, erased, made again/,
    usable: /→|stays/,
    steps: [/Back up/, /New pool: /, /Check/],
  },
  {
    name: "Protect a drive that already holds data",
    plan: holdsData({ ...boxOf("I", "desktop-mirror", "raid1", [4], [4], {}, 2), pools: [] }, "d1"),
    does: /serial CAL-D1\) keeps its data and gets a 4\sTB drive as its mirror/,
    usable: /→ 3\.9\d\sTB|→ 4\.00\sTB/,
    steps: [/Test/, /Mirror 4\sTB in bay 1/, /Check/],
  },
  {
    name: "Two small drives mirrored onto one large one",
    plan: holdsData({ ...boxOf("J", "linux-host", "raid1", [1, 1], [2], {}, 4), pools: [] }, "d1", "d2"),
    does: /1\sTB and 1\sTB keep their data/,
    usable: /→ 2\.00\sTB/,
    steps: [/Test/, /Mirror 1\sTB in bay 1/, /Check/],
  },
];

for (const { name, plan, does, usable: gain, steps: expected } of cases) {
  test(`ready-made: ${name}`, async ({ page }) => {
    await openPlan(page, plan);
    await readyMade(page);
    await dialog(page).getByRole("button", { name, exact: true }).click();
    await expect(dialog(page).getByText(does)).toBeVisible();
    await expect(fact(page, "Usable")).toHaveText(gain);
    for (const each of ["To buy", "Erased", "Takes", "Exposed"]) await expect(fact(page, each)).not.toBeEmpty();
    await dialog(page)
      .getByRole("button", { name: `Plan these ${expected.length} steps` })
      .click();
    await expect(dialog(page)).toBeHidden();
    await expect(steps(page)).toHaveText(expected);
    await expect(page.getByRole("img", { name: "cannot be carried out" })).toHaveCount(0);
    // One act, undone at once.
    await page.getByRole("button", { name: /^Undo/ }).first().click();
    await expect(page.getByRole("button", { name: "Ready-made steps" })).toBeVisible();
  });
}

test("while what is known of steps is loading, a plan that has some does not look as if it had none", async ({
  page,
}) => {
  await openPlan(page, coveredClinic);
  // What stood on the page for a moment only is noted as it comes.
  await page.addInitScript(() => {
    const noted = ((window as unknown as { noted: string[] }).noted = [] as string[]);
    new MutationObserver(() => {
      for (const words of ["Going through the steps", "Ready-made steps"])
        if (document.body.innerText.includes(words) && !noted.includes(words)) noted.push(words);
    }).observe(document, { childList: true, subtree: true });
  });
  await page.route("**/_next/static/chunks/**", async (route) => {
    await new Promise((resolve) => setTimeout(resolve, 200));
    await route.continue();
  });
  await page.reload();
  await page.getByRole("button", { name: "Ready-made" }).click();
  await expect(page.getByRole("list", { name: "Ready-made steps" })).toBeVisible();
  expect(await page.evaluate(() => (window as unknown as { noted: string[] }).noted)).toEqual([
    "Going through the steps",
  ]);
});

test("what does not suit this box says why, and what cannot be done like this says why", async ({ page }) => {
  await openPlan(page, boxOf("K", "classic-raid", "raid5", [4, 4, 4], []));
  await readyMade(page);
  await dialog(page)
    .getByText(/do not suit this box/)
    .click();
  await expect(dialog(page)).toContainText("A second parity drive. No group of this box has one parity drive.");
  for (const box of await dialog(page).getByRole("group", { name: "Which drives" }).getByRole("checkbox").all())
    await box.uncheck();
  await expect(dialog(page)).toContainText("Choose the drives that are to be changed.");
  await expect(dialog(page).getByRole("button", { name: /^Plan/ })).toHaveCount(0);
  await dialog(page).getByLabel("Size of the new drive").fill("three and a bit");
  await expect(dialog(page).getByLabel("Size of the new drive")).toHaveAttribute("aria-invalid", "true");
});

test("by keyboard only: larger drives, one by one", async ({ page }) => {
  await openPlan(page, boxOf("L", "classic-raid", "raid5", [4, 4, 4], [8, 8, 8]));
  await tabTo(page, /^Ready-made steps$/);
  await page.keyboard.press("Enter");
  await expect(dialog(page)).toBeVisible();
  await tabTo(page, /^test new drives first$/);
  await page.keyboard.press("Space");
  await expect(dialog(page).getByRole("button", { name: "Plan these 6 steps" })).toBeEnabled();
  await tabTo(page, /^Plan these \d+ steps$/);
  await page.keyboard.press("Enter");
  await expect(dialog(page)).toBeHidden();
  await expect(steps(page).first()).toHaveText(/Back up/);
  await expect(usable(page)).toHaveText(/16\.00/);
});

test("by keyboard only: another group, another layout", async ({ page }) => {
  await openPlan(page, boxOf("M", "classic-raid", "raid5", [4, 4, 4], [4, 4]));
  await tabTo(page, /^Ready-made steps$/);
  await page.keyboard.press("Enter");
  await tabTo(page, /^Another group of drives$/);
  await page.keyboard.press("Space");
  await expect(dialog(page).getByLabel("Layout")).toBeVisible();
  await tabTo(page, /^Layout$/);
  await page.keyboard.type("RAID 1");
  await expect(dialog(page).getByText(/as another RAID 1 group/)).toBeVisible();
  await expect(dialog(page).getByRole("button", { name: /^Plan these \d+ steps$/ })).toBeEnabled();
  await tabTo(page, /^Plan these \d+ steps$/);
  await page.keyboard.press("Enter");
  await expect(steps(page).last()).toHaveText(/Another group: RAID 1 of/);
});

test("precious data without a backup stops a widening, until its owner lifts that in writing", async ({ page }) => {
  const plan: Plan = {
    ...boxOf("N", "classic-raid", "raid5", [4, 4, 4], [4], volume(7e12)),
    dataSets: [{ id: "s1", name: "Parish photographs", volume: "v1", bytes: 3e12, worth: "precious" }],
    steps: [{ id: "s1", kind: "widen-group", group: "g1", drives: ["x1"] }],
  };
  await openPlan(page, plan);
  await steps(page).first().click();
  const step = page.getByRole("region", { name: "The chosen step" });
  await expect(step).toContainText("no current backup holds Parish photographs, which cannot be had again");
  await expect(step).toContainText("It cannot be carried out as planned.");
  await step.getByRole("button", { name: "Go on without, in writing…" }).click();
  await dialog(page).getByRole("button", { name: "Go on without" }).click();
  await expect(dialog(page).getByRole("alert")).toContainText("Write a sentence");
  await dialog(page).getByRole("textbox").fill("The negatives are in the archive of the parish.");
  await dialog(page).getByRole("button", { name: "Go on without" }).click();
  await expect(dialog(page)).toBeHidden();
  await expect(step).toContainText("you wrote: “The negatives are in the archive of the parish.”");
  await expect(usable(page)).toHaveText(/12\.00/);
  await saved(page);
  await page.reload();
  await steps(page).first().click();
  await step.getByRole("button", { name: "Take that back" }).click();
  await expect(step).toContainText("It cannot be carried out as planned.");
  await step.getByRole("button", { name: "Back up first" }).click();
  await expect(steps(page)).toHaveText([/Back up/, /Widen by 4/]);
  await expect(page.getByRole("img", { name: "cannot be carried out" })).toHaveCount(0);
});

test("a change that is planned after a backup knows of it", async ({ page }) => {
  const plan: Plan = {
    ...boxOf("O", "classic-raid", "raid5", [4, 4, 4], [8], volume(7e12)),
    dataSets: [{ id: "s1", name: "Parish photographs", volume: "v1", bytes: 3e12, worth: "precious" }],
    steps: [{ id: "s1", kind: "back-up", pool: "p1", to: "the box at home" }],
  };
  await openPlan(page, plan);
  const pending = page.getByRole("group", { name: "A change to plan" });
  const putInBayOne = async () => {
    await page.getByRole("button", { name: /^More about the 8\sTB/ }).click();
    await page.getByRole("menuitem", { name: "Move to" }).press("ArrowRight");
    await page.getByRole("menuitem", { name: /^Bay 1/ }).click();
    await pending.getByLabel("back up first").uncheck();
  };
  await steps(page).first().click();
  await putInBayOne();
  await expect(pending).toContainText("for about 12 hours, one more failed drive would lose data");
  await expect(pending.getByRole("button", { name: "Plan it", exact: true })).toBeVisible();
  await pending.getByRole("button", { name: "Cancel" }).click();
  await page.getByRole("button", { name: "Now" }).click();
  await page.getByRole("slider", { name: "Moment of the plan" }).press("Home");
  await page.getByRole("button", { name: "More about step 1" }).click();
  await page.getByRole("menuitem", { name: "Remove" }).click();
  await page.getByLabel("Plan what I do next as a step").check();
  await putInBayOne();
  await expect(pending).toContainText("no current backup holds Parish photographs");
  await expect(pending.getByRole("button", { name: "Plan it nevertheless" })).toBeVisible();
});

test("what is stored, where else it is kept, and what each mishap would take", async ({ page }) => {
  await firstVisit(page);
  await page.getByRole("link", { name: "Data" }).click();
  await page.getByRole("button", { name: /^Make one volume of all of Images/ }).click();
  await page.getByRole("button", { name: "Add data" }).click();
  await dialog(page).getByLabel("Name").fill("X-ray images");
  await dialog(page).getByLabel("Size today").fill("eight");
  await dialog(page).getByRole("button", { name: "Save" }).click();
  await expect(dialog(page).getByRole("alert")).toBeVisible();
  await dialog(page).getByLabel("Size today").fill("8.2 TB");
  await dialog(page).getByLabel("If it were lost").selectOption("precious");
  await dialog(page).getByLabel("It grows").selectOption("month");
  await dialog(page).getByLabel("By how much each month").fill("220 GB");
  await dialog(page).getByRole("button", { name: "Save" }).click();
  const set = page.getByRole("list", { name: "Data sets" }).getByRole("listitem");
  await expect(set).toContainText(/One drive fails\s*Nothing is lost/);
  await expect(set).toContainText(/Theft or fire\s*Lost/);
  await page.getByRole("button", { name: "Add a backup" }).click();
  await dialog(page).getByLabel("Name").fill("Box at home");
  await dialog(page).getByLabel("How much fits").fill("12 TB");
  await dialog(page).getByLabel("A copy every").fill("7");
  await dialog(page).getByRole("button", { name: "Save" }).click();
  const backup = page.getByRole("list", { name: "Backups" }).getByRole("listitem");
  await expect(backup).toContainText("Never tested, so it does not count");
  await expect(set).toContainText(/Theft or fire\s*Lost/);
  await backup.getByRole("button", { name: "I tested it today" }).click();
  await expect(set).toContainText(/Theft or fire\s*Restored from Box at home as it was up to 7 days earlier/);
  await expect(set).toContainText(
    /Deletion by mistake\s*Restored from Box at home, but only if you notice before the next backup/,
  );
  // 8.2 TB and 0.22 a month, against 80 % of 15.9 TB: 4.5 TB are 20 months and a half.
  const full = page.getByRole("region", { name: "When it is full" });
  const then = new Date();
  then.setDate(then.getDate() + Math.round(20.4 * 30.4));
  await expect(full).toContainText(
    new RegExp(`Images will reach your 20 % reserve on \\d+ \\w+ ${then.getFullYear()}`),
  );
  await full.getByLabel("Keep free").selectOption("50");
  await expect(full).toContainText("Images has reached your 50 % reserve");
});

test("a plan gets dates, waits for hands and days at home, and goes to a calendar program", async ({ page }) => {
  await openPlan(page, { ...coveredClinic, calendar: undefined } as unknown as Plan);
  await expect(steps(page).nth(2)).toContainText(/Replace 4\sTB in bay 1.*h$/);
  await page.getByRole("link", { name: "Calendar" }).click();
  await page.getByRole("button", { name: "Give this plan dates, from today" }).click();
  await page.getByLabel("The first day").fill("2026-11-23");
  await page.getByLabel("When you can be at the box").selectOption({ label: "weekends, 9:00 to 20:00" });
  const november = page.getByRole("region", { name: "November 2026" });
  await expect(november).toContainText(/28 Nov 2026\s*09:00 2\. Test 12\sTB/);
  await expect(november).toContainText(/Order 2 × 12\sTB/);
  await page.getByLabel("Days on which you are away").fill("28 Nov – 29 Novembruary");
  await page.getByLabel("The first day").focus();
  await expect(page.getByRole("alert").filter({ hasText: "no day that can be read" })).toBeVisible();
  await page.getByLabel("Days on which you are away").fill("28-29 Nov");
  await page.getByLabel("The first day").focus();
  await expect(page.getByRole("region", { name: "December 2026" })).toContainText(/5 Dec 2026\s*09:00 2\. Test 12\sTB/);
  await page.getByLabel("Deliveries take").fill("400");
  await page.getByLabel("The first day").focus();
  await expect(page.getByRole("alert").filter({ hasText: "Type whole days, from 0 to 365" })).toBeVisible();
  await page.getByLabel("Deliveries take").fill("3");
  await page.getByLabel("The first day").focus();
  await expect(page.getByRole("alert").filter({ hasText: "Type whole days" })).toHaveCount(0);
  const download = page.waitForEvent("download");
  await page.getByRole("button", { name: "Export for a calendar program" }).click();
  const file = await download;
  expect(file.suggestedFilename()).toBe("animal-clinic-two-larger-drives.ics");
  const events = new ICAL.Component(ICAL.parse(await readFile(await file.path(), "utf8")) as never)
    .getAllSubcomponents("vevent")
    .map((each) => new ICAL.Event(each));
  expect(events).toHaveLength(9);
  expect(
    events
      .find((event) => event.uid.startsWith("s2."))!
      .startDate.toJSDate()
      .toISOString(),
  ).toBe("2026-12-05T08:00:00.000Z");
  await page.getByRole("link", { name: "Plan", exact: true }).click();
  await expect(steps(page).nth(2)).toContainText(/6 Dec$/);
  await steps(page).nth(2).click();
  await expect(page.getByRole("region", { name: "The chosen step" })).toContainText(
    /Begins Sun 6 Dec, \d\d:\d\d, at the box/,
  );
});

async function pagesOf(pdf: Buffer): Promise<string[]> {
  const read = await getDocument({ data: new Uint8Array(pdf), useSystemFonts: true, verbosity: 0 }).promise;
  return Promise.all(
    Array.from({ length: read.numPages }, async (_, i) =>
      (await (await read.getPage(i + 1)).getTextContent()).items
        .map((item) => ("str" in item ? item.str : ""))
        .join(" ")
        .replace(/\s+/g, " "),
    ),
  );
}

test("the plan prints as a document, and its months as pages, without the page's own buttons", async ({ page }) => {
  await openPlan(page, coveredClinic);
  await page.getByRole("button", { name: "File", exact: true }).click();
  await page.getByRole("menuitem", { name: "Print this plan…" }).click();
  await expect(page.getByRole("heading", { name: "The staircase" })).toBeVisible();
  await expect(page.getByText(/^From|From Mon 23 Nov 2026/).first()).toBeVisible();
  const pages = await pagesOf(await page.pdf({ format: "A4" }));
  expect(pages.length).toBeGreaterThanOrEqual(2);
  expect(pages.length).toBeLessThanOrEqual(4);
  const text = pages.join(" ");
  for (const part of [
    "Animal clinic, two larger drives",
    "The box before and after",
    "The staircase",
    "Steps",
    "What is erased",
    "To buy",
    "Data, and what may happen to it",
    "What this rests on",
    "serial TJ4-0417",
  ])
    expect(text.replace(/\s+/g, " ")).toContain(part);
  expect(text).not.toContain("Print, or keep as PDF");
  expect(text).not.toContain("Saved");
  await page.getByRole("link", { name: "Calendar" }).click();
  await expect(page.getByRole("region", { name: "December 2026" })).toBeVisible();
  const months = (await pagesOf(await page.pdf({ format: "A4" }))).join(" ");
  expect(months).toContain("November 2026");
  expect(months).toContain("December 2026");
  expect(months).not.toContain("When you can be at the box");
});

test("a link carries the plan to another browser, which keeps it when asked; a damaged one changes nothing", async ({
  page,
  browser,
  baseURL,
}) => {
  await openPlan(page, coveredClinic);
  await page.getByRole("button", { name: "File", exact: true }).click();
  await page.getByRole("menuitem", { name: "A link with this plan…" }).click();
  const link = await dialog(page).getByRole("textbox").inputValue();
  expect(link.startsWith(`${baseURL}/open#plan=`)).toBe(true);
  const other = await (await browser.newContext()).newPage();
  await other.goto(link);
  await expect(other.getByRole("heading", { name: "Animal clinic, two larger drives" })).toBeVisible();
  await expect(other.getByText(/7 drives .* and 8 steps\. It came with the link/)).toBeVisible();
  await other.getByRole("button", { name: "Keep this plan and open it" }).click();
  await expect(other.getByLabel("Name of the plan")).toHaveValue("Animal clinic, two larger drives");
  await expect(steps(other)).toHaveCount(8);
  await other.context().close();
  const third = await (await browser.newContext()).newPage();
  await third.goto(link.slice(0, -40));
  await expect(third.getByRole("heading", { name: "This link is damaged" })).toBeVisible();
  await third.getByRole("link", { name: "Go to your plans" }).click();
  await expect(third.getByText("Animal clinic, two larger drives")).toHaveCount(0);
  await third.context().close();
});

test("the plan as Markdown, on the clipboard", async ({ page, context }) => {
  await context.grantPermissions(["clipboard-read", "clipboard-write"]);
  await openPlan(page, coveredClinic);
  await page.getByRole("button", { name: "File", exact: true }).click();
  await page.getByRole("menuitem", { name: "Copy as Markdown" }).click();
  await expect(page.getByText("The plan is on the clipboard, as Markdown.", { exact: true })).toBeVisible();
  const text = await page.evaluate(() => navigator.clipboard.readText());
  expect(text).toContain("# Animal clinic, two larger drives");
  expect(text).toMatch(/2\. \*\*Sat 28 Nov, 09:00/);
});
