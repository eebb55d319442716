import { expect, test } from "@playwright/test";
import config from "../../playwright.config";
import { firstVisit } from "./workbench";

const launch = config.use?.launchOptions ?? {};

// As an owner sets it who reads large letters: 24 instead of 16 pixels.
test.use({ launchOptions: { ...launch, args: [...(launch.args ?? []), "--blink-settings=defaultFontSize=24"] } });

test("the text size that the browser is told is followed, and nothing runs off the page", async ({ page }) => {
  await firstVisit(page);
  const sizes = await page.evaluate(() => ({
    page: getComputedStyle(document.documentElement).fontSize,
    heading: getComputedStyle(document.querySelector("#shelf-heading")!).fontSize,
    wide: document.documentElement.scrollWidth - innerWidth,
  }));
  expect(sizes.page).toBe("22.5px");
  expect(Number.parseFloat(sizes.heading)).toBeGreaterThan(22.5);
  expect(sizes.wide).toBeLessThanOrEqual(0);
});
