import { expect, type Locator, type Page } from "@playwright/test";
import { nominalBytes } from "../../src/core/bytes/nominalBytes";
import { emptyPlan } from "../../src/core/document/emptyPlan";
import type { Plan, Pool, LayoutId, RuleSetId } from "../../src/core/document/plan";

/** Opens Cortijo for the first time: the demo plan. */
export async function firstVisit(page: Page): Promise<void> {
  await page.goto("/");
  await page.waitForURL(/\/plan\/[0-9a-f-]+$/);
  await expect(page.getByRole("heading", { name: "Shelf" })).toBeVisible();
}

/** A new, empty plan. */
export async function newPlan(page: Page): Promise<void> {
  await firstVisit(page);
  await page.getByRole("link", { name: "Cortijo" }).click();
  await page.getByRole("link", { name: "New plan" }).click();
  await page.getByRole("button", { name: "Begin with an empty box" }).click();
  await expect(page.getByText("The box is empty.")).toBeVisible();
}

/** The large figure with its unit. */
export const usable = (page: Page) => page.getByTestId("usable-figure").locator("..");

/** Waits until everything is in the database. */
export async function saved(page: Page): Promise<void> {
  await expect(page.getByRole("status").filter({ hasText: /^Saved$/ })).toBeVisible();
}

/** What the element with the focus is called. */
const focused = (page: Page): Promise<string> =>
  page.evaluate(() => {
    const element = document.activeElement;
    const label =
      element && "labels" in element
        ? (element as HTMLInputElement).labels?.[0]?.querySelector("span")?.textContent ||
          (element as HTMLInputElement).labels?.[0]?.textContent
        : null;
    return (element?.getAttribute("aria-label") ?? label ?? element?.textContent ?? "").trim();
  });

/** Presses an arrow; whether that led anywhere. */
async function arrow(page: Page, key: string): Promise<boolean> {
  const before = await page.evaluateHandle(() => document.activeElement);
  await page.keyboard.press(key);
  return page.evaluate((old) => document.activeElement !== old, before);
}

/** How many stops the row of a list has in which the focus is. */
const stopsInRow = (page: Page): Promise<number> =>
  page.evaluate(() => {
    const on = document.activeElement;
    const rows = [...(on?.closest("[data-along]")?.children ?? [])];
    return rows.find((row) => row.contains(on))?.querySelectorAll("button:not(:disabled)").length ?? 0;
  });

/** Looks through a list that is one stop, row by row, by its arrows; whether the wanted one has the focus then. */
async function inList(page: Page, name: RegExp): Promise<boolean> {
  const along = await page.evaluate(
    () => document.activeElement?.closest<HTMLElement>("[data-along]")?.dataset.along ?? null,
  );
  if (along === null) return false;
  const [next, more, back] =
    along === "down" ? ["ArrowDown", "ArrowRight", "ArrowLeft"] : ["ArrowRight", "ArrowDown", "ArrowUp"];
  await page.keyboard.press("Home");
  do {
    const stops = await stopsInRow(page);
    for (let i = 1; i < stops; i += 1) await page.keyboard.press(back);
    for (let i = 0; i < Math.max(1, stops); i += 1) {
      // On the last, another arrow would open its menu.
      if (i > 0) await page.keyboard.press(more);
      if (name.test(await focused(page))) return true;
    }
    for (let i = 1; i < stops; i += 1) await page.keyboard.press(back);
  } while (await arrow(page, next));
  return false;
}

/**
 * Presses Tab, and in a list its arrows, until the element that has the focus is the wanted one, as a person without a
 * mouse does, and goes round again for a while: a dialog that a busy machine has yet to load takes the focus when it
 * comes.
 */
export async function tabTo(page: Page, name: RegExp, most = 90): Promise<void> {
  const until = Date.now() + 15_000;
  for (let i = 0; i < most || Date.now() < until; i += 1) {
    await page.keyboard.press("Tab");
    if (name.test(await focused(page)) || (await inList(page, name))) return;
  }
  throw new Error(`Tab did not reach ${name}.`);
}

/** Drags a drive with the mouse, and lets go when the page says that it is over the place, however slow the machine. */
export async function dragTo(page: Page, from: Locator, to: Locator, over: RegExp): Promise<void> {
  const [a, b] = [await from.boundingBox(), await to.boundingBox()];
  if (!a || !b) throw new Error("Nothing to drag, or nowhere to drag it.");
  await page.mouse.move(a.x + 20, a.y + 15);
  await page.mouse.down();
  await page.mouse.move(a.x + 40, a.y + 30, { steps: 4 });
  await page.mouse.move(b.x + b.width / 2, b.y + b.height / 2, { steps: 10 });
  await expect(page.getByText(over)).toBeAttached();
  await page.mouse.up();
}

/** A box with one pool of these drives in its bays, and others on the shelf. */
export function boxOf(
  name: string,
  set: RuleSetId,
  layout: LayoutId,
  tb: number[],
  shelf: number[],
  more: Partial<Pool> = {},
  bays = 6,
): Plan {
  const drive = (id: string, size: number, bay: number | null): Plan["drives"][number] => ({
    id,
    label: "",
    serial: `CAL-${id.toUpperCase()}`,
    bytes: nominalBytes(size * 1000),
    medium: "hdd",
    bus: "sata",
    logicalSector: 512,
    physicalSector: 4096,
    health: { state: "good" },
    place: bay === null ? { shelf: true } : { bay },
  });
  return {
    ...emptyPlan(name),
    box: { name: "Box in the shed", bays, rules: { set } },
    drives: [
      ...tb.map((size, i) => drive(`d${i + 1}`, size, i + 1)),
      ...shelf.map((size, i) => drive(`x${i + 1}`, size, null)),
    ],
    pools: [
      {
        id: "p1",
        name: "Shared",
        groups: [{ id: "g1", layout, drives: tb.map((_, i) => `d${i + 1}`), options: {} }],
        spares: [],
        volumes: [],
        ...more,
      },
    ],
  };
}

/** Imports a plan and waits until it is open. */
export async function openPlan(page: Page, plan: Plan): Promise<void> {
  await firstVisit(page);
  const before = page.url();
  await page.getByLabel("Plan file").setInputFiles({
    name: "plan.cortijo.json",
    mimeType: "application/json",
    buffer: Buffer.from(JSON.stringify(plan)),
  });
  await expect(page).not.toHaveURL(before);
  await expect(page.getByLabel("Name of the plan")).toHaveValue(plan.name);
}
