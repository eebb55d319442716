import { expect, test } from "@playwright/test";
import { readFile, writeFile } from "node:fs/promises";
import { firstVisit, newPlan, saved, usable } from "./workbench";

test("undo and redo across reloads", async ({ page }) => {
  await newPlan(page);
  for (const drives of ["2 × 4 TB", "8 TB", "12 TB"]) {
    await page.getByLabel("Drives to add").fill(drives);
    await page.getByRole("button", { name: "Add", exact: true }).click();
  }
  await expect(page.getByRole("list", { name: "Drives on the shelf" }).getByRole("listitem")).toHaveCount(4);
  await saved(page);
  await page.reload();
  await page.getByRole("button", { name: "Undo: added 1 drive" }).click();
  await page.keyboard.press("Control+z");
  await expect(page.getByRole("list", { name: "Drives on the shelf" }).getByRole("listitem")).toHaveCount(2);
  await saved(page);
  await page.reload();
  await page.getByRole("button", { name: "Redo: added 1 drive" }).click();
  await expect(page.getByRole("list", { name: "Drives on the shelf" }).getByRole("listitem")).toHaveCount(3);
});

test("export, delete with undo, delete, import back: the file is the same to the byte", async ({ page }) => {
  await firstVisit(page);
  const exportPlan = async () => {
    const download = page.waitForEvent("download");
    await page.getByRole("button", { name: "File", exact: true }).click();
    await page.getByRole("menuitem", { name: "Export this plan" }).click();
    return download;
  };
  const first = await exportPlan();
  expect(first.suggestedFilename()).toBe("animal-clinic-villarrolla.cortijo.json");
  const path = await first.path();

  await page.getByRole("link", { name: "Cortijo" }).click();
  const plans = page.getByRole("list", { name: "Plans", exact: true });
  const remove = async () => {
    await page.getByRole("button", { name: /^More about Animal clinic/ }).click();
    await page.getByRole("menuitem", { name: "Delete" }).click();
    await expect(page.getByText("You have no plans.")).toBeVisible();
  };
  await remove();
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(plans.getByRole("listitem")).toHaveCount(1);
  await remove();

  await page.getByLabel("Plan file").setInputFiles(path);
  await page.waitForURL(/\/plan\//);
  await expect(usable(page)).toHaveText(/15\.97\s*TB/);
  const second = await exportPlan();
  expect(await readFile(await second.path(), "utf8")).toBe(await readFile(path, "utf8"));
});

test("plans are renamed, duplicated, and brought back from the deleted", async ({ page }) => {
  await firstVisit(page);
  await page.getByRole("link", { name: "Cortijo" }).click();
  const name = page.getByRole("textbox", { name: /^Name of Animal clinic/ });
  await name.fill("The clinic");
  await name.press("Enter");
  await page.getByRole("button", { name: "More about The clinic" }).click();
  await page.getByRole("menuitem", { name: "Duplicate" }).click();
  await expect(page.getByRole("link", { name: "Open The clinic (copy)" })).toBeVisible();
  await page.getByRole("button", { name: "More about The clinic", exact: true }).click();
  await page.getByRole("menuitem", { name: "Delete" }).click();
  await page.reload();
  await page.getByText("Deleted in the last 30 days (1)").click();
  await page.getByRole("button", { name: "Bring back" }).click();
  await page.getByRole("link", { name: "Open The clinic", exact: true }).click();
  await page.getByRole("button", { name: /^Undo: renamed the plan/ }).click();
  await expect(page.getByRole("heading", { level: 1, name: "Animal clinic, Villarrolla" })).toBeAttached();
});

test.describe("files that are no plan", () => {
  const newer = JSON.stringify({ format: "cortijo-plan", version: 7 });
  const files: [string, string | Buffer, RegExp][] = [
    ["not JSON", "PK\u0003\u0004 nonsense", /This file is not JSON/],
    [
      "wrong shape",
      '{"format":"cortijo-plan","version":1,"name":"x","box":{"name":"b","bays":4,"rules":{"set":"none"}},"drives":[],"pools":[],"steps":[],"extra":"<img ' +
        'src=x onerror=alert(1)>"}',
      /"extra" is not a field that Cortijo knows/,
    ],
    ["a newer version", newer, /made by a newer Cortijo/],
    ["50 MB", Buffer.alloc(50_000_000, 32), /has 50 MB; a plan has at most 4 MB/],
  ];
  for (const [what, content, message] of files) {
    test(`${what}: a clear message, and nothing changes`, async ({ page }, info) => {
      const path = info.outputPath("bad.cortijo.json");
      await writeFile(path, content);
      await firstVisit(page);
      const before = page.url();
      await page.getByLabel("Plan file").setInputFiles(path);
      const dialog = page.getByRole("dialog");
      await expect(dialog.getByText(message).last()).toBeVisible();
      await expect(dialog.getByText("Nothing has been changed.")).toBeVisible();
      await dialog.getByRole("button", { name: "Close" }).last().click();
      await expect(usable(page)).toHaveText(/15\.97\s*TB/);
      expect(page.url()).toBe(before);
      await page.goto("/");
      await expect(page.getByRole("list", { name: "Plans", exact: true }).getByRole("listitem")).toHaveCount(1);
    });
  }
});

test("two tabs on one plan stay the same, and each says what the other did", async ({ page, context }) => {
  await firstVisit(page);
  const other = await context.newPage();
  await other.goto(page.url());
  await saved(other);
  await page.getByRole("button", { name: "One bay more" }).click();
  await expect(other.getByText("7 bays", { exact: true })).toBeVisible();
  await expect(other.getByText(/Changed in another tab\. Last: gave the box 7 bays/).first()).toBeVisible();
  await other.getByRole("button", { name: "One bay more" }).click();
  await expect(page.getByText("8 bays", { exact: true })).toBeVisible();
  await page.getByRole("button", { name: "Undo: gave the box 8 bays" }).click();
  await expect(other.getByText("7 bays", { exact: true })).toBeVisible();
});

test("a plan deleted in another tab is said to be gone at once, and comes back with what was done meanwhile", async ({
  page,
  context,
}) => {
  await firstVisit(page);
  await saved(page);
  const other = await context.newPage();
  await other.goto("/");
  await other.getByRole("button", { name: /^More about Animal clinic/ }).click();
  await other.getByRole("menuitem", { name: "Delete" }).click();
  await expect(page.getByRole("alert").filter({ hasText: "was deleted in another tab" })).toBeVisible();
  await page.getByRole("button", { name: "One bay more" }).click();
  await expect(page.getByRole("status").filter({ hasText: "Not saved" })).toBeVisible();
  // Another place of the plan has it too.
  await page.getByRole("link", { name: "Data" }).click();
  await page.getByRole("link", { name: "Plan", exact: true }).click();
  await expect(page.getByText("7 bays", { exact: true })).toBeVisible();
  await page.getByRole("button", { name: "Bring it back" }).click();
  await saved(page);
  await page.reload();
  await expect(page.getByText("7 bays", { exact: true })).toBeVisible();
  await expect(other.getByRole("link", { name: /^Open Animal clinic/ })).toBeVisible();
});

test("site data cleared meanwhile: the page keeps the plan, says so, asks before it is left, and saves it anew", async ({
  page,
}) => {
  await firstVisit(page);
  await saved(page);
  await page.getByRole("button", { name: "One bay more" }).click();
  await saved(page);
  const browser = await page.context().newCDPSession(page);
  await browser.send("Storage.clearDataForOrigin", { origin: new URL(page.url()).origin, storageTypes: "indexeddb" });
  await expect(page.getByRole("alert").filter({ hasText: "was cleared" })).toBeVisible();
  const asked = page.waitForEvent("dialog");
  void page.reload().catch(() => undefined);
  const question = await asked;
  expect(question.type()).toBe("beforeunload");
  await question.dismiss();
  await page.getByRole("button", { name: "Save it again" }).click();
  await saved(page);
  await page.reload();
  await page.getByRole("button", { name: /^Undo: gave the box 7 bays/ }).click();
  await expect(page.getByText("6 bays", { exact: true })).toBeVisible();
});

test("a plan that is damaged is listed as such, can be exported as it was kept, and harms no other", async ({
  page,
}) => {
  await firstVisit(page);
  await saved(page);
  const address = page.url();
  await page.goto("/");
  await page.getByRole("button", { name: /^More about Animal clinic/ }).click();
  await page.getByRole("menuitem", { name: "Duplicate" }).click();
  await expect(page.getByRole("link", { name: /^Open Animal clinic.*copy/ })).toBeVisible();
  await page.evaluate(
    (id) =>
      new Promise<void>((resolve) => {
        const opening = indexedDB.open("cortijo");
        opening.onsuccess = () => {
          const plans = opening.result.transaction("plans", "readwrite").objectStore("plans");
          const getting = plans.get(id);
          getting.onsuccess = () => {
            plans.put({ ...getting.result, document: { ...getting.result.document, drives: "gone" } });
            plans.transaction.oncomplete = () => (opening.result.close(), resolve());
          };
        };
      }),
    address.split("/").at(-1)!,
  );
  await page.reload();
  await expect(page.getByText("What was kept of this plan is damaged")).toBeVisible();
  await expect(page.getByRole("link", { name: /^Open Animal clinic.*copy/ })).toBeVisible();
  await page.getByRole("button", { name: "More about Animal clinic, Villarrolla", exact: true }).click();
  const download = page.waitForEvent("download");
  await page.getByRole("menuitem", { name: "Export as it was kept" }).click();
  expect(JSON.parse(await readFile(await (await download).path(), "utf8"))).toMatchObject({ drives: "gone" });
  await page.goto(address);
  await expect(page.getByRole("heading", { name: "This plan is damaged" })).toBeVisible();
});

test("all plans are exported in one file, and brought back from it", async ({ page }, info) => {
  await firstVisit(page);
  await page.goto("/");
  await page.getByRole("button", { name: /^More about Animal clinic/ }).click();
  await page.getByRole("menuitem", { name: "Duplicate" }).click();
  const plans = page.getByRole("list", { name: "Plans", exact: true }).getByRole("listitem");
  await expect(plans).toHaveCount(2);
  const download = page.waitForEvent("download");
  await page.getByRole("button", { name: "Export all plans" }).click();
  const path = info.outputPath("all.cortijo.json");
  await (await download).saveAs(path);
  await page.getByLabel("Plan file").setInputFiles(path);
  await expect(plans).toHaveCount(4);
});

test("a name that is typed and not yet left is kept when the page is", async ({ page }) => {
  await firstVisit(page);
  await page.getByLabel("Name of the plan").fill("Typed  and left");
  await expect(page.getByRole("button", { name: /^Undo: renamed the plan/ })).toBeVisible();
  await saved(page);
  await page.reload();
  await expect(page.getByLabel("Name of the plan")).toHaveValue("Typed  and left");
});

test("where the browser keeps nothing, the page says so, goes on, and the plan can still be exported", async ({
  page,
}) => {
  await page.addInitScript(() => {
    Object.defineProperty(window, "indexedDB", {
      get: () => ({
        open: () => {
          throw new DOMException("blocked", "SecurityError");
        },
      }),
    });
  });
  await page.goto("/");
  await expect(page.getByRole("alert").filter({ hasText: "does not let Cortijo keep data here" })).toBeVisible();
  await page.getByRole("button", { name: "One bay more" }).click();
  await expect(page.getByText("7 bays", { exact: true })).toBeVisible();
  const download = page.waitForEvent("download");
  await page.getByRole("button", { name: "Export the plan" }).click();
  expect(JSON.parse(await readFile(await (await download).path(), "utf8"))).toMatchObject({ box: { bays: 7 } });
});

test("a plan that is not in this browser says what to do", async ({ page }) => {
  await page.goto("/plan/not-here");
  await expect(page.getByRole("heading", { name: "This plan is not in this browser" })).toBeVisible();
});
