import { expect, test, type Page } from "@playwright/test";
import { axeFindsNothing } from "./axe";
import { boxOf, firstVisit, openPlan } from "./workbench";

const panel = (page: Page) => page.getByRole("region", { name: "Practice box" });
const press = (page: Page, name: string | RegExp) => page.getByRole("button", { name, exact: true }).click();

/** Opens the practice box among the samples, where its plan is carried out. */
async function openSample(page: Page) {
  await firstVisit(page);
  await page.getByRole("link", { name: "Cortijo" }).click();
  await press(page, "Open a copy of the sample: A practice box");
  await expect(panel(page).getByText("It has nothing to do.")).toBeVisible();
}

async function confirmDrive(page: Page, end: string) {
  const fields = page.getByRole("textbox", { name: /^Last four/ });
  await expect(fields.first()).toBeVisible();
  const before = await fields.count();
  await fields.first().fill(end);
  await fields.first().press("Enter");
  await expect(fields).toHaveCount(before - 1);
}

/** Lets the box begin, puts its clock ahead until it has ended, and records that. */
async function letItRun(page: Page) {
  await press(page, "The box has begun");
  await expect(page.getByRole("heading", { name: "It is under way" })).toBeVisible();
  await panel(page).getByRole("button", { name: "Until it has ended" }).click();
  await expect(panel(page).getByText("It has nothing to do.")).toBeVisible();
  await expect(panel(page).getByRole("heading", { name: "Practice box" })).toBeFocused();
  await press(page, "It has ended");
}

test("carried through its plan by its own clock; a drive that dies on the way is rescued, and nothing is lost", async ({
  page,
}) => {
  test.setTimeout(90_000);
  await openSample(page);
  // A check that has not ended cannot be recorded as ended, whatever is pressed.
  await press(page, "The box has begun");
  await panel(page).getByRole("button", { name: "An hour on" }).click();
  await expect(panel(page).getByText(/Check \(scrub\): 10\s% done, about 8 hours to go/)).toBeVisible();
  await press(page, "It has ended");
  await expect(page.getByRole("alert").filter({ hasText: "still at it: 10" })).toContainText("Nothing was recorded.");
  // Run fast, the clock stops by itself as soon as something has happened.
  for (let hour = 0; hour < 6; hour += 1) await panel(page).getByRole("button", { name: "An hour on" }).click();
  await panel(page).getByRole("button", { name: "Run it fast: 1 h a second" }).click();
  await expect(panel(page).getByRole("button", { name: "Stop the clock" })).toBeVisible();
  await expect(panel(page).getByText("It has nothing to do.")).toBeVisible({ timeout: 20_000 });
  await expect(panel(page).getByRole("button", { name: "Run it fast: 1 h a second" })).toBeVisible();
  await press(page, "It has ended");

  // A drive dies before the next step. The box says so; the plan learns it when the box is read.
  await panel(page).getByRole("button", { name: "Let something go wrong…" }).click();
  await page.getByLabel("Where").selectOption({ label: "4 TB, TJ4-3058, in bay 2".replace("4 TB", "4\u00a0TB") });
  await press(page, "Let it happen");
  await expect(panel(page).getByRole("heading", { name: "Practice box" })).toBeFocused();
  await expect(panel(page).getByRole("listitem").first()).toContainText("TJ4-3058 does not answer any more");
  await panel(page).getByRole("link", { name: "How is the box now?" }).click();
  await press(page, "Read the practice box");
  await expect(page.getByRole("heading", { name: "1 thing is not as planned." })).toBeFocused();
  await press(page, "Say that it has failed");
  await expect(page.getByText(/Orchard: Nothing is lost, but 1 drive is gone/).first()).toBeVisible();
  await page.getByRole("link", { name: "What to do now" }).first().click();
  await expect(page.getByRole("region", { name: "Is it safe?" })).toContainText("Nothing is lost.");
  await press(page, /^Put .* into the plan/);

  // The new drive is filled by the box from the others; the data is there all the while, and after it.
  await page.getByRole("link", { name: "Carry out" }).click();
  await expect(page.getByRole("heading", { level: 2, name: /^Rebuild 4\sTB in bay 2/ })).toBeVisible();
  await confirmDrive(page, "3058");
  await confirmDrive(page, "9033");
  await press(page, "The box has begun");
  await panel(page).getByRole("button", { name: "An hour on" }).click();
  await panel(page).getByRole("button", { name: "Read all data back and compare it" }).click();
  await expect(panel(page).getByText("Harvest: all of it is there, and as it was written.")).toBeVisible();
  await panel(page).getByRole("link", { name: "How is the box now?" }).click();
  await press(page, "Read the practice box");
  await expect(
    page.getByRole("heading", { name: "A step of the plan is under way, and all else is as planned." }),
  ).toBeFocused();
  await press(page, "Note how far it is");
  await page.getByRole("link", { name: "Carry out" }).first().click();
  await expect(page.getByText(/\(by 8\.\d\s?% at /)).toBeVisible();
  await panel(page).getByRole("button", { name: "Until it has ended" }).click();
  await press(page, "It has ended");

  await expect(page.getByRole("heading", { level: 2, name: "Check (scrub)" })).toBeVisible();
  await letItRun(page);

  // The rest of the plan: widened, the volume and its files grown.
  await expect(page.getByRole("heading", { level: 2, name: /^Widen by 4\sTB/ })).toBeVisible();
  await confirmDrive(page, "9027");
  await letItRun(page);
  await press(page, "Done");
  await expect(page.getByRole("heading", { level: 2, name: /^Grow the file system/ })).toBeVisible();
  await press(page, "Done");
  await expect(page.getByRole("heading", { name: "All of it is done" })).toBeVisible();
  await panel(page).getByRole("link", { name: "How is the box now?" }).click();
  await press(page, "Read the practice box");
  await expect(page.getByRole("heading", { name: "The box is as planned." })).toBeFocused();
  await panel(page).getByRole("button", { name: "Read all data back and compare it" }).click();
  await expect(panel(page).getByText("Harvest: all of it is there, and as it was written.")).toBeVisible();
  // It is all there again in a new tab, by the same clock.
  const clock = await panel(page)
    .getByText(/^By its clock it is/)
    .textContent();
  await page.reload();
  await expect(panel(page).getByText(/^By its clock it is/)).toHaveText(clock ?? "");
});

test("brought in by its texts, pulled apart beyond what it bears, and set up anew", async ({ page }) => {
  await page.goto("/new/box");
  await press(page, "Put in what a practice box prints");
  await expect(page.getByRole("textbox", { name: "What the box prints" })).toHaveValue(
    /TJ4-3102[\s\S]*md0 : active raid5/,
  );
  await press(page, "Read it");
  await press(page, "Make a plan of it");
  await expect(page.getByRole("button", { name: /serial TJ4-3011/ }).first()).toBeVisible();
  await page.getByRole("link", { name: "Box now" }).click();
  await press(page, "Read the practice box");
  await expect(page.getByRole("heading", { name: "The box is as planned." })).toBeFocused();
  await panel(page).getByText("Look at the box, and read its labels").click();
  await press(page, "Pull TJ4-3011 out of bay 1");
  // The focus goes with the drive.
  const beside = page.getByRole("list", { name: "Beside the practice box" });
  await expect(beside.getByRole("listitem").filter({ hasText: "TJ4-3011" })).toBeFocused();
  await press(page, "Pull TJ4-3102 out of bay 3");
  await panel(page).getByRole("button", { name: "Read all data back and compare it" }).click();
  await expect(panel(page).getByText(/: none of it can be read now\. No backup has it\./)).toBeVisible();
  // Only loose: put in again at once, they are taken in as they were.
  await press(page, "Put TJ4-3011 into a bay");
  await press(page, "Put TJ4-3102 into a bay");
  await panel(page).getByRole("button", { name: "Read all data back and compare it" }).click();
  await expect(panel(page).getByText(/: all of it is there, and as it was written\./)).toBeVisible();
  await panel(page).getByText("Begin again, or put it away").click();
  await press(page, "Set it up again");
  await expect(panel(page).getByRole("heading", { name: "What it has said" })).toHaveCount(0);
  await press(page, "Put the practice box away");
  await expect(panel(page)).toHaveCount(0);
  await expect(page.getByRole("main")).toBeFocused();
  await press(page, "Read it again");
  await expect(page.getByRole("button", { name: "Set up a practice box" })).toBeVisible();
});

test("the health of its drives is brought in where that of any box is", async ({ page }) => {
  await openSample(page);
  await panel(page).getByRole("button", { name: "Let something go wrong…" }).click();
  await page.getByLabel("What goes wrong").selectOption({ label: "A drive gets very many of them" });
  await press(page, "Let it happen");
  await page.getByRole("link", { name: "Plan", exact: true }).click();
  await press(page, "More ways to bring drives in");
  await page.getByRole("menuitem", { name: "Read SMART data…" }).click();
  await press(page, "Put in what the practice box prints");
  await press(page, "Read");
  await expect(page.getByRole("list", { name: "Reports" }).getByRole("listitem").first()).toContainText(
    /TJ4-3011.*40 pending sectors/,
  );
});

test("any plan can be tried on one; what the box refuses is not recorded", async ({ page }) => {
  const volumes = [{ id: "v1", name: "Photos", bytes: 3.9e12, fileSystem: "ext4" as const, usedBytes: 1e12 }];
  const plan = boxOf("Weaver's loft", "linux-host", "raid1", [4, 4], [4], { volumes });
  await openPlan(page, { ...plan, steps: [{ id: "s1", kind: "widen-group", group: "g1", drives: ["x1"] }] });
  await page.getByRole("link", { name: "Box now" }).click();
  await press(page, "Set up a practice box");
  await expect(panel(page).getByRole("heading", { name: "Practice box" })).toBeFocused();
  await panel(page).getByRole("button", { name: "Let something go wrong…" }).click();
  await page.getByLabel("What goes wrong").selectOption({ label: "A new drive is 1 % smaller than it should be" });
  await press(page, "Let it happen");
  await page.getByRole("link", { name: "Carry out" }).click();
  await confirmDrive(page, "AL-X1");
  await press(page, "The box has begun");
  const refusal = page.getByRole("alert").filter({ hasText: "The practice box refuses it." });
  await expect(refusal).toContainText("A drive is smaller than the mirror. Nothing was recorded.");
  await expect(page.getByRole("heading", { name: "It is under way" })).toHaveCount(0);
  await expect(panel(page).getByRole("listitem").first()).toContainText(/Refused: Widen by 4\sTB/);
});

test("axe finds nothing on a practice box that is at work", async ({ page }) => {
  await openSample(page);
  await press(page, "The box has begun");
  await panel(page).getByRole("button", { name: "An hour on" }).click();
  await panel(page).getByText("Look at the box, and read its labels").click();
  await panel(page).getByText("Begin again, or put it away").click();
  await panel(page).getByRole("button", { name: "Read all data back and compare it" }).click();
  await axeFindsNothing(page);
  await panel(page).getByRole("button", { name: "Let something go wrong…" }).click();
  await expect(page.getByRole("dialog")).toBeVisible();
  await axeFindsNothing(page);
});
