import { expect, test, type Page } from "@playwright/test";
import { coveredClinic } from "../../src/core/document/samples/coveredClinic";
import type { Plan } from "../../src/core/document/plan";
import { openPlan } from "./workbench";

const SIZES = [
  [1280, 800],
  [1280, 560],
  [1024, 640],
  [390, 844],
  [320, 640],
] as const;

/** The longest names that the format allows, without a place to break them. */
const LONG = "W".repeat(120);
const SCRIPTS = [LONG, "写".repeat(120), "ש".repeat(120), "\u0915\u094d\u0937".repeat(40), "👩‍⚕️".repeat(24)];
/** The bays of pools of one drive, as many as there can be. */
const SINGLE = Array.from({ length: 19 }, (_, i) => i + 6);
const named: Plan = {
  ...coveredClinic,
  name: LONG,
  box: { ...coveredClinic.box, name: LONG, bays: 24 },
  drives: [
    ...coveredClinic.drives,
    ...SINGLE.map((bay) => ({ ...coveredClinic.drives[0]!, id: `d${bay + 20}`, place: { bay } })),
  ].map((drive, i) => ({ ...drive, label: LONG, serial: `${i}${"S".repeat(198)}` })),
  pools: [
    ...coveredClinic.pools.map((pool) => ({
      ...pool,
      name: LONG,
      volumes: pool.volumes.map((volume) => ({ ...volume, name: LONG })),
    })),
    ...SINGLE.map((bay) => ({
      ...coveredClinic.pools[0]!,
      id: `p${bay}`,
      name: SCRIPTS[bay % SCRIPTS.length]!,
      groups: [{ id: `g${bay}`, layout: "single" as const, drives: [`d${bay + 20}`] }],
      volumes: [],
    })),
  ],
  dataSets: (coveredClinic.dataSets ?? []).map((set) => ({ ...set, name: LONG })),
  backups: (coveredClinic.backups ?? []).map((backup) => ({ ...backup, name: LONG })),
};

/** The same with the longest entries in its logbook, and a step under way. */
const recorded: Plan = {
  ...named,
  underWay: named.steps.slice(0, 1).map(({ id }) => ({ step: id, start: "2026-11-26T08:00Z" })),
  log: [1, 2].map((n) => ({
    id: `l${n}`,
    what: "check" as const,
    text: LONG,
    start: `2026-10-0${n}T08:00Z`,
    end: `2026-10-0${n}T19:00Z`,
    byRates: 9,
    predicted: { low: 6, expected: 9, high: 15 },
  })),
};

/** The same with a drive that has failed, and one that fits. */
const lacking: Plan = {
  ...named,
  drives: named.drives.map((drive, i) => (i === 1 ? { ...drive, state: "failed" as const } : drive)),
};

/** What is cut, overlaps or runs off the page, as it is on the screen now. */
function faults(): string[] {
  interface Shown {
    rect: DOMRect;
    of: Element;
    text: string;
  }
  interface Sight {
    rect: DOMRect;
    hidden: boolean;
    cutBy: Element | null;
  }
  const meet = (a: DOMRect, b: DOMRect) => {
    const [left, top] = [Math.max(a.left, b.left), Math.max(a.top, b.top)];
    const [right, bottom] = [Math.min(a.right, b.right), Math.min(a.bottom, b.bottom)];
    return new DOMRect(left, top, Math.max(0, right - left), Math.max(0, bottom - top));
  };
  // A name that ends in dots is told in full by a title, or by what names the whole.
  const isTold = (around: Element) =>
    getComputedStyle(around).textOverflow === "ellipsis" &&
    (around.closest("[title], [aria-label]") ?? around.querySelector("[title]")) !== null;
  const through = (sight: Sight, around: Element): Sight => {
    const { overflowX, overflowY } = getComputedStyle(around);
    if (overflowX === "visible" && overflowY === "visible") return sight;
    const box = around.getBoundingClientRect();
    const rect = meet(sight.rect, box);
    const hidden = sight.hidden || box.width <= 1 || box.height <= 1;
    const less = sight.rect.width - rect.width > 1.5 || sight.rect.height - rect.height > sight.rect.height * 0.25;
    // What is beyond a part that scrolls can be brought into sight.
    const cut = less && !hidden && !/auto|scroll/.test(overflowX + overflowY) && !isTold(around);
    return { rect, hidden, cutBy: cut ? around : sight.cutBy };
  };
  const seen = (rect: DOMRect, of: Element): Sight => {
    let sight: Sight = { rect, hidden: rect.width < 1, cutBy: null };
    for (let around: Element | null = of; around && around !== document.body; around = around.parentElement)
      sight = through(sight, around);
    return sight;
  };
  const isText = (of: Element | null): of is Element =>
    of !== null &&
    !of.closest("svg, script, style, option, [aria-hidden=true], .js-plotly-plot") &&
    of.checkVisibility({ opacityProperty: true, visibilityProperty: true, contentVisibilityAuto: true });

  const found: string[] = [];
  const shown: Shown[] = [];
  const wide = document.documentElement.scrollWidth;
  if (wide > innerWidth) found.push(`the page is ${wide} wide`);
  const texts = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
  for (let node = texts.nextNode(); node; node = texts.nextNode()) {
    const of = node.parentElement;
    const text = (node.textContent ?? "").trim().slice(0, 40);
    if (text === "" || !isText(of)) continue;
    const range = document.createRange();
    range.selectNodeContents(node);
    for (const whole of range.getClientRects()) {
      const { rect, hidden, cutBy } = seen(whole, of);
      if (cutBy) found.push(`cut: “${text}” in ${cutBy.tagName} ${String(cutBy.className).slice(0, 60)}`);
      if (!hidden && rect.width > 2 && rect.height > 2) shown.push({ rect, of, text });
    }
  }
  const overlap = (one: Shown, other: Shown) => {
    const both = meet(one.rect, other.rect);
    const nested = one.of.contains(other.of) || other.of.contains(one.of);
    return !nested && both.width > 3 && both.height > 5;
  };
  for (const [i, one] of shown.entries())
    for (const other of shown.slice(i + 1))
      if (overlap(one, other)) found.push(`overlap: “${one.text}” and “${other.text}”`);
  return [...new Set(found)];
}

/** What can be pressed and is smaller than 24 px each way, a word within a sentence apart. */
function smallTargets(): string[] {
  const pressed =
    'button:not(.cursor-help), a[href], input, select, textarea, summary, [role="separator"], [role="slider"]';
  return [...document.querySelectorAll<HTMLElement>(pressed)].flatMap((target) => {
    const boxes = [target, target.closest("label")].flatMap((each) => each?.getBoundingClientRect() ?? []);
    const [width, height] = [Math.max(...boxes.map((box) => box.width)), Math.max(...boxes.map((box) => box.height))];
    if (width === 0 || target.closest(".sr-only, .skip:not(:focus)") || (width >= 23.5 && height >= 23.5)) return [];
    return [`${target.tagName} “${(target.ariaLabel ?? target.textContent).slice(0, 40)}” ${width} × ${height}`];
  });
}

async function lookAtAllSizes(page: Page, place: string): Promise<void> {
  expect(await page.evaluate(smallTargets), place).toEqual([]);
  for (const [width, height] of SIZES) {
    await page.setViewportSize({ width, height });
    await page.evaluate(() => scrollTo(0, 0));
    // Pictures are drawn to the new size.
    await page.waitForTimeout(250);
    expect(await page.evaluate(faults), `${place} at ${width} × ${height}`).toEqual([]);
  }
}

for (const [place, shown] of [
  ["", "Growing"],
  ["/compare", "Layouts side by side"],
  ["/data", "What the plan costs"],
  ["/calendar", "December 2026"],
  ["/box", "What can your box do?"],
  ["/print", "What this rests on"],
  ["/rescue", "What can take its place"],
  ["/rehearse", "Rehearse"],
  ["/chance", "What moves it"],
  ["/growth", "Layout by layout"],
  ["/reading", "How is the box now?"],
  ["/carry", "Carry out"],
  ["/logbook", "Logbook"],
] as const)
  test(`nothing is cut and nothing overlaps, with the longest names, at any size: ${place || "/plan"}`, async ({
    page,
  }) => {
    await openPlan(page, place === "/rescue" ? lacking : /carry|logbook/.test(place) ? recorded : named);
    if (place) await page.goto(page.url() + place);
    await expect(page.getByRole("heading", { name: shown })).toBeAttached();
    if (place === "/reading") {
      await page.getByRole("button", { name: "Set up a practice box" }).click();
      await page.getByRole("button", { name: "Let something go wrong…" }).click();
      await page.getByRole("button", { name: "Let it happen" }).click();
      await page.getByText("Look at the box, and read its labels").click();
      await page.getByRole("button", { name: "Read all data back and compare it" }).click();
    }
    await lookAtAllSizes(page, place);
  });

test("nothing is cut and nothing overlaps: the list of plans, the quick start", async ({ page }) => {
  await openPlan(page, named);
  await page.getByRole("link", { name: "Cortijo" }).click();
  await expect(page.getByRole("heading", { name: "Samples to look at" })).toBeVisible();
  await lookAtAllSizes(page, "the list");
  await page.goto("/new");
  await page.getByLabel("What drives do you have?").fill("4, 4, 8 and 12 TB, 2 × 960 GB ssd");
  await expect(page.getByRole("list", { name: "Layouts" })).toBeVisible();
  await lookAtAllSizes(page, "the quick start");
});
