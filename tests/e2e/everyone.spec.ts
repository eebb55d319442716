import { expect, test, type Locator, type Page } from "@playwright/test";
import { nominalBytes } from "../../src/core/bytes/nominalBytes";
import type { Plan } from "../../src/core/document/plan";
import { clinic } from "../../src/core/document/samples/clinic";
import { coveredClinic } from "../../src/core/document/samples/coveredClinic";
import { axeFindsNothingAtAnySize } from "./axe";
import { openPlan, tabTo } from "./workbench";

const PLACES = [
  "",
  "/compare",
  "/data",
  "/calendar",
  "/rehearse",
  "/carry",
  "/logbook",
  "/reading",
  "/chance",
  "/growth",
];

test("each place has one title, and the first stop leads past what is the same on each", async ({ page }) => {
  await openPlan(page, coveredClinic);
  const plan = page.url();
  for (const place of PLACES) {
    await page.goto(plan + place);
    await expect(page.getByRole("main")).toBeVisible();
    await expect(page.getByRole("heading", { level: 1 }), place).toHaveCount(1);
    await page.keyboard.press("Tab");
    const skip = page.getByRole("link", { name: "Skip to the page" });
    await expect(skip, place).toBeFocused();
    await expect(skip).toBeInViewport();
    await page.keyboard.press("Enter");
    await expect(page.getByRole("main"), place).toBeFocused();
  }
});

/** How many presses of Tab lead once round the page. */
async function stops(page: Page): Promise<number> {
  return page.evaluate(
    () =>
      [
        ...document.querySelectorAll<HTMLElement>(
          "a[href], button:not(:disabled), input:not(:disabled), select, textarea, summary, [tabindex]",
        ),
      ].filter((each) => each.tabIndex >= 0 && each.checkVisibility()).length,
  );
}

/** The largest box there is: 24 bays, all in use, 176 drives on the shelf, 1,000 steps. */
function largest(): Plan {
  const [pattern] = clinic.drives;
  const drives = Array.from({ length: 200 }, (_, i) => ({
    ...pattern!,
    id: `d${i + 1}`,
    serial: `S-${i + 1}`,
    bytes: nominalBytes(4000),
    place: i < 24 ? { bay: i + 1 } : { shelf: true as const },
  }));
  return {
    ...clinic,
    name: "The largest",
    box: { ...clinic.box, bays: 24 },
    drives,
    pools: [
      {
        ...clinic.pools[0]!,
        groups: [{ ...clinic.pools[0]!.groups[0]!, drives: drives.slice(0, 24).map(({ id }) => id) }],
        spares: [],
      },
    ],
    steps: Array.from({ length: 1000 }, (_, i) => ({ id: `s${i + 1}`, kind: "verify", pool: clinic.pools[0]!.id })),
  } as unknown as Plan;
}

test("the largest box is no more than forty stops of the Tab key; arrows lead through its lists", async ({ page }) => {
  test.slow();
  await openPlan(page, largest());
  await expect(page.getByRole("list", { name: "Bays" }).getByRole("listitem")).toHaveCount(24);
  await page.keyboard.press("Tab");
  await expect.poll(() => stops(page), { timeout: 30_000 }).toBeLessThanOrEqual(40);
});

test("arrows go through drives, bays, columns and steps; the list is left and come back to where it was", async ({
  page,
}) => {
  await openPlan(page, coveredClinic);
  const bays = page.getByRole("list", { name: "Bays" }).getByRole("button");
  await tabTo(page, /^4\sTB drive in bay 1 /);
  await page.keyboard.press("ArrowRight");
  await expect(bays.and(page.getByRole("button", { name: /^\S+\s\S+ drive in bay 2 / }))).toBeFocused();
  await page.keyboard.press("ArrowDown");
  await expect(page.getByRole("button", { name: /^More about the .* bay 2/ })).toBeFocused();
  await page.keyboard.press("End");
  await page.keyboard.press("Home");
  await expect(page.getByRole("button", { name: /^More about the .* bay 1/ })).toBeFocused();
  await page.keyboard.press("ArrowRight");
  await page.keyboard.press("Tab");
  await page.keyboard.press("Shift+Tab");
  await expect(page.getByRole("button", { name: /^More about the .* bay 2/ })).toBeFocused();
  await tabTo(page, /^What if .* bay 1.*fails/);
  await page.keyboard.press("ArrowRight");
  await expect(page.getByRole("button", { name: /^What if .* bay 2.*fails/ })).toBeFocused();
  await tabTo(page, /^Now$/);
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("ArrowRight");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("list", { name: "Steps" }).locator('[aria-current="step"]')).toContainText("1");
});

test("a step that is moved is told of as it goes: which, and before or after which", async ({ page }) => {
  await openPlan(page, coveredClinic);
  const said = page.locator('[id^="DndLiveRegion"]').filter({ hasText: /step/ });
  await tabTo(page, /^Move step 2:/);
  await page.keyboard.press("Space");
  await expect(said).toHaveText(/^Moving step 2, .*: where it was\.$/);
  await page.keyboard.press("ArrowUp");
  await expect(said).toHaveText(/^Moving step 2, .*: before step 1, ./);
  await page.keyboard.press("ArrowDown");
  await expect(said).toHaveText(/^Moving step 2, .*: where it was\.$/);
  await page.keyboard.press("Escape");
  await expect(said).toHaveText(/^Left step 2, .* where it was\.$/);
});

test("the days of the calendar are heard with their month, and are a list on a phone", async ({ page }) => {
  await openPlan(page, coveredClinic);
  await page.goto(`${page.url()}/calendar`);
  const month = page.getByRole("region", { name: "December 2026" });
  await expect(month.getByRole("cell", { name: /^1 Dec 2026/ })).toBeVisible();
  const busy = await month
    .getByRole("cell")
    .filter({ has: page.getByRole("listitem") })
    .count();
  expect(busy).toBeGreaterThan(1);
  for (const width of [390, 320]) {
    await page.setViewportSize({ width, height: 844 });
    await expect(month.getByRole("table")).toHaveCount(0);
    // Each day on which something is to be done, and none else.
    await expect(month.locator("ol > li").filter({ has: page.getByRole("listitem") })).toHaveCount(busy);
    await expect(month.locator("ol > li").first()).toContainText(/Dec 2026/);
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(width);
  }
});

test("dialogs begin in their first field; what is wrong belongs to its field", async ({ page }) => {
  await openPlan(page, coveredClinic);
  await page.goto(`${page.url()}/data`);
  await page.getByRole("button", { name: "Add data" }).click();
  const dialog = page.getByRole("dialog");
  const [name, size] = [dialog.getByLabel("Name"), dialog.getByLabel(/^Size|^How large/)];
  await expect(name).toBeFocused();
  await dialog.getByRole("button", { name: "Save" }).click();
  await expect(name).toBeFocused();
  await expect(name).toHaveAttribute("aria-invalid", "true");
  await expect(name).toHaveAccessibleDescription("Give it a name.");
  await name.fill("Pictures");
  await size.fill("much");
  await page.keyboard.press("Enter");
  await expect(size).toBeFocused();
  await expect(size).toHaveAccessibleDescription(/^Size: /);
  await expect(name).not.toHaveAttribute("aria-invalid", "true");
  await size.fill("1 TB");
  await page.keyboard.press("Enter");
  await expect(dialog).toHaveCount(0);
});

const edge = (locator: Locator) =>
  locator.evaluate((element) => {
    const { outlineStyle, outlineColor } = getComputedStyle(element);
    return `${outlineStyle} ${outlineColor}`;
  });

test("where the browser's own colours stand, what is chosen, pressed and current keeps an edge", async ({ page }) => {
  await page.emulateMedia({ forcedColors: "active" });
  await openPlan(page, coveredClinic);
  const drive = page.getByRole("button", { name: /^4\sTB drive in bay 1 / });
  const column = page.getByRole("button", { name: /^What if .* bay 2 .*fails/ });
  const plain = await edge(drive);
  await drive.click();
  await column.click();
  await page.getByRole("list", { name: "Steps" }).getByRole("button", { name: "Now" }).click();
  await page.getByRole("heading", { name: "Shelf" }).click();
  const chosen = await edge(drive);
  expect(chosen).not.toBe(plain);
  expect(chosen).toMatch(/^solid /);
  for (const each of [
    column,
    page.getByRole("link", { name: "Plan", exact: true }),
    page.locator('[aria-current="step"]').first(),
    page.locator("label").filter({ has: page.getByRole("radio", { name: "TB", exact: true }) }),
  ])
    expect(await edge(each)).toBe(chosen);
  // What has the focus is told from what is chosen, also where both are one.
  await page.keyboard.press("Tab");
  await page.keyboard.press("Tab");
  expect(await page.evaluate(() => getComputedStyle(document.activeElement!).outlineStyle)).toBe("double");
});

for (const place of [...PLACES, "/print", "/box", "/rescue"])
  test(`axe finds nothing at a desk and on a phone, in any look: ${place || "/plan"}`, async ({ page }) => {
    await openPlan(page, coveredClinic);
    if (place) await page.goto(page.url() + place);
    await expect(page.getByRole("heading").first()).toBeAttached();
    await page.waitForTimeout(400);
    await axeFindsNothingAtAnySize(page);
  });

test("the main task of Data, Calendar, Logbook, the box's rules and the list of plans, by keyboard alone", async ({
  page,
}) => {
  test.slow();
  const press = (key: string) => page.keyboard.press(key);
  await openPlan(page, coveredClinic);
  await tabTo(page, /^Data$/);
  await press("Enter");
  await tabTo(page, /^Add a backup$/);
  await press("Enter");
  await expect(page.getByRole("dialog").getByLabel("Name", { exact: true })).toBeFocused();
  await page.keyboard.type("At my sister's");
  await press("Enter");
  await expect(page.getByRole("button", { name: "Add a backup" })).toBeFocused();
  await expect(page.getByText("At my sister's").first()).toBeVisible();
  await tabTo(page, /^Calendar$/);
  await press("Enter");
  await tabTo(page, /^Deliveries take/);
  await page.keyboard.type("9");
  await press("Tab");
  await expect(page.getByLabel("When you can be at the box")).toBeFocused();
  await press("ArrowDown");
  await expect(page.getByLabel("When you can be at the box")).toBeFocused();
  await tabTo(page, /^Carry out$/);
  await press("Enter");
  await tabTo(page, /^Logbook$/);
  await press("Enter");
  await tabTo(page, /^Add an entry$/);
  await press("Enter");
  await tabTo(page, /^Save$/);
  await press("Enter");
  await expect(page.getByRole("button", { name: "Add an entry" })).toBeFocused();
  await tabTo(page, /^Plan$/);
  await press("Enter");
  await expect(page.getByRole("heading", { name: "Shelf" })).toBeVisible();
  await page.goto(`${page.url()}/box`);
  await tabTo(page, /^Hybrid box/);
  await press("ArrowDown");
  await expect(page.getByRole("radio").and(page.locator(":focus"))).toBeChecked();
  await expect(page.getByRole("radio", { name: /^Hybrid box/ })).not.toBeChecked();
  await page.goto("/");
  await tabTo(page, /^New plan$/);
  await press("Enter");
  await expect(page.getByLabel("What drives do you have?")).toBeVisible();
  await expect.poll(() => page.evaluate(() => document.activeElement?.tagName)).not.toBe("BODY");
});
