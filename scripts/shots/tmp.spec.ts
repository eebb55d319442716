import { test } from "@playwright/test";
import { coveredClinic } from "../../src/core/document/samples/coveredClinic";
import { openPlan } from "../../tests/e2e/workbench";
test("x", async ({ page }) => {
  test.setTimeout(120000);
  await page.setViewportSize({ width: 1280, height: 800 });
  await openPlan(page, { ...coveredClinic, name: "Clinic", steps: [], currency: "EUR" } as never);
  await page.goto(`${page.url()}/growth`);
  await page.getByRole("region", { name: "Layout by layout" }).getByRole("row").nth(1).waitFor({ timeout: 60000 });
  await page.getByRole("region", { name: "What would change it" }).getByRole("row").nth(1).waitFor({ timeout: 60000 });
  await page.getByText(/“About” is what/).waitFor({ timeout: 60000 });
  await page.setViewportSize({ width: 1280, height: 1900 });
  await page.waitForTimeout(800);
  await page.screenshot({ path: "/tmp/g1.png" });
  await page.emulateMedia({ colorScheme: "dark" });
  await page.setViewportSize({ width: 390, height: 3400 });
  await page.waitForTimeout(800);
  await page.screenshot({ path: "/tmp/g2.png" });
});
