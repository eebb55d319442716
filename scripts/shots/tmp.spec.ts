import { test } from "@playwright/test";
import { growingClinic } from "../../src/core/document/samples/growingClinic";
import { openPlan } from "../../tests/e2e/workbench";

const shot = (name: string) => ({ path: `/tmp/shots/${name}.png` });
const H = 3_600_000;
const entry = (i: number, work: string, kind: string, label: string, byRates: number, took: number) => {
  const start = Date.parse("2026-08-03T08:00Z") + i * 9 * 24 * H;
  return {
    id: `h${i + 1}`, step: `z${i}`, kind, label, start: new Date(start).toISOString(), end: new Date(start + took * H).toISOString(),
    outcome: "done" as const, work: work as "check", byRates, predicted: { low: byRates * 0.65, expected: byRates, high: byRates * 1.6 },
  };
};
const history = [
  entry(0, "check", "verify", "Check (scrub)", 22.1, 27.4),
  entry(1, "self-test", "test-drive", "Test 12 TB (…0991)", 25, 26.3),
  entry(2, "rebuild", "replace-drive", "Replace 4 TB in bay 5 by 8 TB", 12.3, 15.9),
  entry(3, "check", "verify", "Check (scrub)", 22.1, 28.9),
  entry(4, "backup", "back-up", "Back up", 22.3, 24.1),
  entry(5, "rebuild", "replace-drive", "Replace 4 TB in bay 6 by 8 TB", 12.3, 21.5),
];
const log = [{ id: "l1", what: "failure" as const, text: "The 4 TB drive in bay 5 (serial TJ4-0099)", start: "2026-08-18T21:40Z" }];
const plan = { ...growingClinic, steps: growingClinic.steps.slice(2), history, log };

test("carry", async ({ page }) => {
  await openPlan(page, plan);
  await page.getByRole("link", { name: "Carry out" }).click();
  await page.waitForTimeout(800);
  await page.screenshot({ ...shot("carry"), fullPage: false });
  await page.setViewportSize({ width: 390, height: 844 });
  await page.waitForTimeout(400);
  await page.screenshot({ ...shot("carry-phone"), fullPage: true });
  const fields = page.getByRole("textbox", { name: /serial number/ });
  await page.getByRole("textbox", { name: /Last four/ }).fill("0422");
  await page.getByRole("button", { name: "Is it this one?" }).first().click();
  await page.waitForTimeout(300);
  await page.screenshot({ ...shot("carry-wrong"), fullPage: false });
  await page.getByRole("textbox", { name: /Last four/ }).fill("0417");
  await page.getByRole("button", { name: "Is it this one?" }).first().click();
  await fields.last().fill("TJ12-5531");
  await page.getByRole("button", { name: "Is it this one?" }).click();
  await page.getByRole("button", { name: "The box has begun" }).click();
  await page.waitForTimeout(400);
  await page.getByLabel("How far it is, in %").fill("12.5");
  await page.getByRole("button", { name: "Note it" }).click();
  await page.getByLabel("What it shows").fill("14.53");
  await page.waitForTimeout(400);
  await page.screenshot({ ...shot("carry-runs-phone"), fullPage: true });
});
test("logbook", async ({ page }) => {
  await openPlan(page, plan);
  await page.getByRole("link", { name: "Carry out" }).click();
  await page.getByRole("link", { name: "Logbook", exact: true }).click();
  await page.waitForTimeout(2500);
  await page.screenshot(shot("logbook"));
  await page.setViewportSize({ width: 1280, height: 1500 });
  await page.emulateMedia({ colorScheme: "dark" });
  await page.waitForTimeout(600);
  await page.screenshot(shot("logbook-tall"));
});
test("sheet", async ({ page }) => {
  await openPlan(page, plan);
  await page.getByRole("link", { name: "Carry out" }).click();
  for (const [name, button] of [["sheet", "Save the sheet"], ["labels", "Labels for the drives"]] as const) {
    const [download] = await Promise.all([page.waitForEvent("download"), page.getByRole("button", { name: button }).click()]);
    await download.saveAs(`/tmp/shots/${name}.html`);
  }
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto("file:///tmp/shots/sheet.html");
  await page.waitForTimeout(300);
  await page.screenshot(shot("sheet"));
  await page.setViewportSize({ width: 900, height: 600 });
  await page.goto("file:///tmp/shots/labels.html");
  await page.screenshot(shot("labels"));
});
