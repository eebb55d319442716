import { expect, test, type Page } from "@playwright/test";
import { coveredClinic } from "../../src/core/document/samples/coveredClinic";
import { openPlan } from "./workbench";

test.use({ viewport: { width: 390, height: 844 }, hasTouch: true });

/** A finger put down, moved in small steps, and lifted. */
async function swipe(page: Page, from: { x: number; y: number }, by: { x: number; y: number }): Promise<void> {
  const session = await page.context().newCDPSession(page);
  const touch = (type: string, share: number) =>
    session.send("Input.dispatchTouchEvent", {
      type: type as "touchMove",
      touchPoints: type === "touchEnd" ? [] : [{ x: from.x + by.x * share, y: from.y + by.y * share }],
    });
  await touch("touchStart", 0);
  for (let i = 1; i <= 8; i += 1) await touch("touchMove", i / 8);
  await touch("touchEnd", 1);
}

test("a swipe up over the staircase scrolls the page, one along it goes through time, a tap chooses", async ({
  page,
}) => {
  await openPlan(page, coveredClinic);
  const strip = page.getByRole("slider", { name: "Moment of the plan" });
  const middle = async () => {
    await strip.evaluate((element) => element.scrollIntoView({ block: "center" }));
    const box = (await strip.boundingBox())!;
    return { x: box.x + box.width / 3, y: box.y + box.height / 2 };
  };
  const scrolled = () => page.evaluate(() => scrollY);
  const start = await middle();
  const before = await scrolled();
  await swipe(page, start, { x: 4, y: 160 });
  await expect.poll(scrolled).toBeLessThan(before - 40);
  await expect(strip).toHaveAttribute("aria-valuenow", "0");
  await swipe(page, await middle(), { x: 90, y: 6 });
  await expect(strip).not.toHaveAttribute("aria-valuenow", "0");
  await expect(strip).toBeInViewport();
  await strip.tap({ position: { x: 3, y: 40 } });
  await expect(strip).toHaveAttribute("aria-valuenow", "0");
});

test("what an act comes to is on the screen on which it was begun: failing, selecting, going through time", async ({
  page,
}) => {
  await openPlan(page, coveredClinic);
  const columns = [1, 2].map((bay) => page.getByRole("button", { name: new RegExp(`^What if .* bay ${bay}\\b`) }));
  for (const column of columns) await column.tap();
  const verdict = page.locator(".act-bar").getByText("The pool is lost.");
  await expect(verdict).toBeInViewport();
  await expect(columns[0]!).toBeInViewport();
  await page.getByRole("button", { name: "Make whole again" }).tap();
  const old = page.getByRole("button", { name: /^3\sTB drive on the shelf/ });
  await old.evaluate((element) => element.scrollIntoView({ block: "center" }));
  await old.tap();
  await expect(page.getByRole("toolbar", { name: "Selected drives" })).toBeInViewport();
  await page.getByRole("button", { name: "Clear" }).tap();
  const third = page.getByRole("list", { name: "Steps" }).getByRole("button", { name: /^3 / });
  await third.tap();
  await expect(page.getByText(/^Until the new drive is filled, .* would lose data\.$/).last()).toBeInViewport();
  await expect(third).toBeInViewport();
});

test("the main act of each place is as large as a thumb", async ({ page }) => {
  await openPlan(page, coveredClinic);
  const plan = page.url();
  let seen = 0;
  for (const place of ["/data", "/calendar", "/carry", "/logbook", "/reading", "/print", "/new"]) {
    await page.goto(place === "/new" ? place : plan + place);
    const main = page.locator("main").locator("button.bg-indigo, a.bg-indigo").filter({ visible: true });
    await expect(page.getByRole("heading", { level: 1 })).toBeVisible();
    await page.waitForTimeout(300);
    for (const each of await main.all()) {
      seen += 1;
      expect((await each.boundingBox())!.height, `${place} ${await each.textContent()}`).toBeGreaterThanOrEqual(44);
    }
  }
  expect(seen).toBeGreaterThan(4);
});
