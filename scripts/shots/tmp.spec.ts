import { test } from "@playwright/test";
import { coveredClinic } from "../../src/core/document/samples/coveredClinic";
import { openPlan } from "../../tests/e2e/workbench";

test("print", async ({ page }) => {
  test.setTimeout(120000);
  await openPlan(page, coveredClinic);
  const plan = page.url();
  await page.setViewportSize({ width: 718, height: 1000 });
  for (const place of ["carry", "growth", "chance", "rescue"]) {
    await page.goto(`${plan}/${place}`);
    await page.waitForTimeout(place === "growth" || place === "chance" ? 6000 : 1500);
    await page.emulateMedia({ media: "print" });
    await page.waitForTimeout(500);
    await page.screenshot({ path: `/tmp/pr-${place}.png`, fullPage: true, clip: { x: 0, y: 0, width: 718, height: 1400 } });
    await page.emulateMedia({ media: "screen" });
  }
});
