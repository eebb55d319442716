import { expect, test, type Page } from "@playwright/test";
import { coveredClinic } from "../../src/core/document/samples/coveredClinic";
import { growingClinic } from "../../src/core/document/samples/growingClinic";
import { firstVisit, newPlan, openPlan, saved, usable } from "./workbench";

const CHUNKS = "**/_next/static/chunks/**";

test.describe("a part that cannot be loaded says so in its place, and Try again works", () => {
  test("a menu, a dialog, and the export, which needs no server", async ({ page }) => {
    await openPlan(page, growingClinic);
    await expect(page.getByRole("list", { name: "Steps" })).toBeVisible();
    // What the page shows by itself is there: only what is pressed is to be missing.
    await expect(
      page
        .getByRole("region", { name: "Time" })
        .getByText(/of 1,000/)
        .first(),
    ).toBeAttached({ timeout: 30_000 });
    await expect(page.getByText(/such boxes lose something/)).toBeVisible();
    await page.waitForLoadState("networkidle");
    const said = page.getByRole("alert").filter({ hasText: "could not be loaded" });
    const blocked = async (act: () => Promise<void>) => {
      await page.route(CHUNKS, (route) => route.abort());
      await act();
      await expect(said).toBeVisible();
      await page.unroute(CHUNKS);
      await said.getByRole("button", { name: "Try again" }).click();
    };
    const file = page.getByRole("button", { name: "File", exact: true });
    await blocked(() => file.click());
    const download = page.waitForEvent("download");
    await page.getByRole("menuitem", { name: "Export this plan" }).click();
    expect((await download).suggestedFilename()).toMatch(/cortijo\.json$/);

    await blocked(() => page.getByRole("button", { name: "In words" }).click());
    await expect(page.getByRole("dialog")).toBeVisible();
  });

  test("a file to bring in", async ({ page }) => {
    await newPlan(page);
    await page.route(CHUNKS, (route) => route.abort());
    const bringIn = () =>
      page.getByLabel("Plan file").setInputFiles({
        name: "plan.cortijo.json",
        mimeType: "application/json",
        buffer: Buffer.from(JSON.stringify(coveredClinic)),
      });
    await bringIn();
    // The dialog that says so may itself have to be loaded.
    await expect(page.getByText("could not be loaded").first()).toBeVisible();
    await page.unroute(CHUNKS);
    const again = page.getByRole("button", { name: "Try again" });
    if (await again.isVisible()) await again.click();
    await page.getByRole("dialog").getByRole("button", { name: "Close" }).last().click();
    await bringIn();
    await expect(page.getByRole("list", { name: "Steps" })).toBeVisible();
  });
});

test.describe("offline", () => {
  test.use({ serviceWorkers: "allow" });

  /** Waits until the browser keeps the whole application. */
  const kept = (page: Page) => page.evaluate(async () => void (await navigator.serviceWorker.ready));
  const places = ["Compare", "Data", "Calendar", "Plan"];

  test(
    "after one visit every place of every plan opens, also of one made offline; nothing ends on the browser's " +
      "page",
    async ({ page, context }) => {
      await firstVisit(page);
      const [demo] = [page.url()];
      await saved(page);
      await kept(page);
      await context.setOffline(true);
      await page.goto("/");
      await page.getByRole("link", { name: "New plan" }).click();
      await page.getByRole("button", { name: "Begin with an empty box" }).click();
      await expect(page.getByText("The box is empty.")).toBeVisible();
      await page.getByLabel("Drives to add").fill("3 × 4 TB");
      await page.getByRole("button", { name: "Add", exact: true }).click();
      await saved(page);
      const own = page.url();
      expect(own).not.toBe(demo);
      for (const name of places) {
        await page.getByRole("link", { name, exact: true }).click();
        await expect(page).toHaveURL(name === "Plan" ? own : `${own}/${name.toLowerCase()}`);
        await expect(page.getByRole("link", { name, exact: true })).toHaveAttribute("aria-current", "page");
      }
      await expect(page.getByRole("list", { name: "Drives on the shelf" }).getByRole("listitem")).toHaveCount(3);
      // Never opened before: the box's rules, the document, and what was not there at all.
      await page.goto(`${demo}/box`);
      await expect(page.getByRole("heading", { name: "What can your box do?" })).toBeVisible();
      await page.goto(`${demo}/print`);
      await expect(page.getByRole("heading", { name: "What this rests on" })).toBeVisible();
      await page.goto(demo);
      await expect(usable(page)).toHaveText(/15\.97\s*TB/);
      await page.getByRole("button", { name: "File", exact: true }).click();
      await page.getByRole("menuitem", { name: "A link with this plan…" }).click();
      await expect(page.getByRole("dialog").getByRole("textbox")).toBeVisible();
      await page.goto("/no/such/page");
      await expect(page.getByRole("heading", { name: "Your plans" })).toBeVisible();
    },
  );

  test("where the browser forbids keeping it, nothing breaks", async ({ page }) => {
    await page.addInitScript(() =>
      Object.defineProperty(navigator.serviceWorker, "register", {
        value: () => Promise.reject(new DOMException("insecure", "SecurityError")),
      }),
    );
    const errors: string[] = [];
    page.on("pageerror", (error) => errors.push(error.message));
    await firstVisit(page);
    await expect(usable(page)).toHaveText(/15\.97\s*TB/);
    expect(errors).toEqual([]);
  });

  test("a new build waits until it is whole, says so, and takes over at a press", async ({ page }) => {
    await firstVisit(page);
    await kept(page);
    await page.reload();
    // The same worker under another address is a new build to the browser.
    await page.evaluate(() => navigator.serviceWorker.register("/sw.js?newer", { scope: "/" }));
    await expect(page.getByText("A new version of Cortijo is here.")).toBeVisible();
    await page.getByRole("button", { name: "Use it now" }).click();
    await expect(page.getByText("A new version of Cortijo is here.")).toBeHidden();
    await expect(usable(page)).toHaveText(/15\.97\s*TB/);
  });
});
