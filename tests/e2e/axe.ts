import AxeBuilder from "@axe-core/playwright";
import { expect, type Page } from "@playwright/test";

/** Rules that depend on colours; all others find the same in any look. */
const OF_COLOUR = ["color-contrast", "link-in-text-block"];

const DARK = { colorScheme: "dark", forcedColors: "none" } as const;

/** The looks that a page can have besides the light one. */
const LOOKS = [
  DARK,
  { colorScheme: "light", forcedColors: "active" },
  { colorScheme: "dark", forcedColors: "active" },
] as const;

/** Long enough for the page to take another look on, in milliseconds. */
const SETTLE = 120;

/** No page has frames of another origin, for which axe would open a page of its own each time. */
const found = async (axe: AxeBuilder): Promise<string[]> =>
  (await axe.setLegacyMode(true).analyze()).violations.map(
    ({ id, nodes }) =>
      `${id}: ${nodes.map((node) => `${node.html.slice(0, 140)} ${node.any[0]?.message ?? ""}`).join(" | ")}`,
  );

/** Axe finds nothing on the page as it is: by all its rules in light, by those of colour in other looks. */
export async function axeFindsNothing(page: Page, what = "", looks: readonly (typeof LOOKS)[number][] = [DARK]) {
  await page.emulateMedia({ colorScheme: "light", forcedColors: "none", reducedMotion: "reduce" });
  await page.waitForTimeout(SETTLE);
  expect(await found(new AxeBuilder({ page })), what).toEqual([]);
  for (const look of looks) {
    await page.emulateMedia({ ...look, reducedMotion: "reduce" });
    await page.waitForTimeout(SETTLE);
    const findings = await found(new AxeBuilder({ page }).withRules(OF_COLOUR));
    expect(findings, `${what} ${look.colorScheme}, forced colours ${look.forcedColors}`).toEqual([]);
  }
  await page.emulateMedia({ colorScheme: "light", forcedColors: "none" });
}

/**
 * The same at a desk and on a phone: there in dark, here in dark and forced colours; in every look at both sizes where
 * `AXE_LOOKS=all` asks for it, which takes twice as long and has found nothing more so far.
 */
export async function axeFindsNothingAtAnySize(page: Page, what = ""): Promise<void> {
  for (const [width, height, looks] of [
    [1280, 800, [DARK]],
    [390, 844, LOOKS.slice(-1)],
  ] as const) {
    await page.setViewportSize({ width, height });
    await axeFindsNothing(page, `${what} at ${width} × ${height}`, process.env.AXE_LOOKS === "all" ? LOOKS : looks);
  }
}
