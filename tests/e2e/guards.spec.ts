import { expect, test, type Page } from "@playwright/test";
import { clinic } from "../../src/core/document/samples/clinic";
import { growingClinic } from "../../src/core/document/samples/growingClinic";
import { coveredClinic } from "../../src/core/document/samples/coveredClinic";
import { axeFindsNothing } from "./axe";
import { firstVisit, newPlan, openPlan } from "./workbench";

/** The clinic with a plan to grow. */
const growingPlan = (page: Page): Promise<void> => openPlan(page, growingClinic);

const screens: Record<string, (page: Page) => Promise<void>> = {
  "the workbench": firstVisit,
  "an empty plan": newPlan,
  "a what-if with a selection": async (page) => {
    await firstVisit(page);
    await page.getByRole("button", { name: /What if the 8\sTB/ }).click();
    await page.getByRole("button", { name: /What if the 12\sTB/ }).click();
    await page.getByRole("button", { name: /^4\sTB drive in bay 1/ }).click();
  },
  "the layout menu": async (page) => {
    await firstVisit(page);
    await page.getByRole("button", { name: /^Layout of Images/ }).click();
  },
  "the box's kinds": async (page) => {
    await firstVisit(page);
    await page.getByRole("button", { name: /^Kind of box/ }).click();
  },
  "the inventory": async (page) => {
    await firstVisit(page);
    await page.getByRole("button", { name: /^Bring in drives/ }).click();
    await page
      .getByLabel("Output of the command")
      .fill(
        '{"blockdevices":[{"name":"sda","type":"disk","size":4000787030016,"rota":true,"mountpoint":"/"},{"name":"sdb","type":"disk","size":"3.6T"},{"name":"sr0","type":"rom"}]}',
      );
    await page.getByRole("button", { name: "Read" }).click();
  },
  "the waterfall": async (page) => {
    await firstVisit(page);
    await page.getByRole("button", { name: "Waterfall" }).click();
    await expect(page.locator(".js-plotly-plot .bars .point")).toHaveCount(7);
  },
  volumes: async (page) => {
    await firstVisit(page);
    await page.getByRole("button", { name: "Volumes" }).click();
    await page.getByRole("button", { name: "Add a volume of the rest" }).click();
  },
  "times and speed": async (page) => {
    await firstVisit(page);
    await page.getByRole("button", { name: "Times and speed" }).click();
  },
  "what the box can do": async (page) => {
    await firstVisit(page);
    await page.goto(`${page.url()}/box`);
    await page
      .getByRole("group", { name: "Does it keep a share of the pool?" })
      .getByRole("radio", { name: /1\/32, at most 128 GiB/ })
      .check();
  },
  "SMART data": async (page) => {
    await firstVisit(page);
    await page.getByRole("button", { name: "More ways to bring drives in" }).click();
    await page.getByRole("menuitem", { name: "Read SMART data…" }).click();
    await page
      .getByLabel("Output of the command")
      .fill('{"smartctl":{},"serial_number":"TJ4-0417","smart_status":{"passed":false}}');
    await page.getByRole("button", { name: "Read", exact: true }).click();
  },
  "a drive's fields": async (page) => {
    await firstVisit(page);
    await page.getByRole("button", { name: /^More about the 3\sTB/ }).click();
    await page.getByRole("menuitem", { name: "Edit…" }).click();
  },
  compare: async (page) => {
    await firstVisit(page);
    await page.getByRole("link", { name: "Compare" }).click();
    await expect(page.locator(".js-plotly-plot .points path").first()).toBeAttached();
  },
  "the next drive": async (page) => {
    await firstVisit(page);
    await page.getByRole("link", { name: "Compare" }).click();
    await page.getByText("The next drive").click();
    await expect(page.getByText("Best:").first()).toBeVisible();
    await page.getByRole("button", { name: "Prices…" }).click();
  },
  "two face to face": async (page) => {
    await firstVisit(page);
    await page.getByRole("link", { name: "Compare" }).click();
    await page.getByRole("button", { name: "Pin Hybrid (one)", exact: true }).click();
    await page.getByRole("button", { name: "Pin RAID 6", exact: true }).click();
    await expect(page.getByRole("dialog")).toBeVisible();
  },
  "growing, at a step, with a change to plan": async (page) => {
    await growingPlan(page);
    await page.getByRole("list", { name: "Steps" }).getByRole("button", { name: /^\d/ }).nth(1).click();
    await expect(page.getByRole("region", { name: "The chosen step" })).toBeVisible();
    await page.getByRole("button", { name: /^More about the 3\sTB/ }).click();
    await page.getByRole("menuitem", { name: "Move to" }).press("ArrowRight");
    await page.getByRole("menuitem", { name: /^Bay 5/ }).click();
    await expect(page.getByRole("group", { name: "A change to plan" })).toBeVisible();
  },
  "the plan in words": async (page) => {
    await growingPlan(page);
    await page.getByRole("button", { name: "In words" }).click();
    await expect(page.getByRole("dialog")).toBeVisible();
  },
  "a step's fields": async (page) => {
    await growingPlan(page);
    await page.getByRole("button", { name: "More about step 1" }).click();
    await page.getByRole("menuitem", { name: "Edit…" }).click();
    await expect(page.getByRole("dialog")).toBeVisible();
  },
  "ready-made sequences": async (page) => {
    await growingPlan(page);
    await page.getByRole("button", { name: "Ready-made" }).click();
    await expect(page.getByRole("list", { name: "Ready-made steps" })).toBeVisible();
  },
  "a step with dates": async (page) => {
    await openPlan(page, coveredClinic);
    await page.getByRole("list", { name: "Steps" }).getByRole("button", { name: /^\d/ }).nth(2).click();
    await expect(page.getByRole("region", { name: "The chosen step" })).toContainText("at the box");
  },
  "a lift in writing": async (page) => {
    await openPlan(page, { ...coveredClinic, backups: [], steps: coveredClinic.steps.slice(2, 3) });
    await page.getByRole("list", { name: "Steps" }).getByRole("button", { name: /^\d/ }).first().click();
    await page.getByRole("button", { name: "Go on without, in writing…" }).click();
    await expect(page.getByRole("dialog")).toBeVisible();
  },
  "a data set's fields": async (page) => {
    await openPlan(page, coveredClinic);
    await page.getByRole("link", { name: "Data" }).click();
    await page.getByRole("button", { name: "Edit X-ray and ultrasound images" }).click();
    await expect(page.getByRole("dialog")).toBeVisible();
  },
  "a backup's fields": async (page) => {
    await openPlan(page, coveredClinic);
    await page.getByRole("link", { name: "Data" }).click();
    await page.getByRole("button", { name: "Edit USB drive in the drawer" }).click();
    await expect(page.getByRole("dialog")).toBeVisible();
  },
  "data without a volume": async (page) => {
    await firstVisit(page);
    await page.getByRole("link", { name: "Data" }).click();
    await expect(page.getByRole("button", { name: /^Make one volume/ })).toBeVisible();
  },
  "the calendar": async (page) => {
    await openPlan(page, coveredClinic);
    await page.getByRole("link", { name: "Calendar" }).click();
    await page.getByLabel("When you can be at the box").selectOption("own");
    await expect(page.getByRole("region", { name: "December 2026" })).toBeVisible();
  },
  "a plan without dates": async (page) => {
    await firstVisit(page);
    await page.getByRole("link", { name: "Calendar" }).click();
    await expect(page.getByRole("button", { name: /^Give this plan dates/ })).toBeVisible();
  },
  "a link with the plan": async (page) => {
    await openPlan(page, coveredClinic);
    await page.getByRole("button", { name: "File", exact: true }).click();
    await page.getByRole("menuitem", { name: "A link with this plan…" }).click();
    await expect(page.getByRole("dialog").getByRole("textbox")).toBeVisible();
  },
  "a damaged link": async (page) => {
    await page.goto("/open#plan=AAAA");
    await expect(page.getByRole("heading", { name: "This link is damaged" })).toBeVisible();
  },
  "the keys": async (page) => {
    await firstVisit(page);
    await page.keyboard.press("?");
  },
  "the list of plans": async (page) => {
    await firstVisit(page);
    await page.getByRole("link", { name: "Cortijo" }).click();
    await expect(page.getByRole("heading", { name: "Your plans" })).toBeVisible();
  },
  "a refused file": async (page) => {
    await firstVisit(page);
    await page.getByLabel("Plan file").setInputFiles({
      name: "x.json",
      mimeType: "application/json",
      buffer: Buffer.from('{"format":"cortijo-plan","version":1}'),
    });
    await expect(page.getByRole("dialog")).toBeVisible();
  },
};

for (const [name, open] of Object.entries(screens))
  test(`axe finds nothing on ${name}`, async ({ page }) => {
    await page.emulateMedia({ reducedMotion: "reduce" });
    await open(page);
    await axeFindsNothing(page);
  });

for (const [width, height] of [
  [1280, 800],
  [1024, 768],
  [390, 844],
] as const) {
  test(`nothing runs off the side at ${width} × ${height}, and at 1280 × 800 nothing scrolls`, async ({ page }) => {
    await page.setViewportSize({ width, height });
    await firstVisit(page);
    const page_ = await page.evaluate(() => ({
      wide: document.documentElement.scrollWidth,
      high: document.documentElement.scrollHeight,
    }));
    expect(page_.wide).toBeLessThanOrEqual(width);
    if (width === 1280) {
      expect(page_.high).toBeLessThanOrEqual(height);
      const readout = await page
        .getByRole("region", { name: "Usable" })
        .locator("..")
        .evaluate((element) => element.scrollHeight - element.clientHeight);
      expect(readout).toBeLessThanOrEqual(0);
    }
  });
}

test("no request leaves the origin, nothing breaks the content security policy, and nothing is logged as an error", async ({
  page,
  baseURL,
}) => {
  const requests: string[] = [];
  const errors: string[] = [];
  page.on("request", (request) => requests.push(request.url()));
  page.on("console", (message) => message.type() === "error" && errors.push(message.text()));
  page.on("pageerror", (error) => errors.push(error.message));
  await firstVisit(page);
  await page.getByRole("button", { name: /^Layout of Images/ }).click();
  await page.keyboard.press("Escape");
  await page.getByRole("link", { name: "Cortijo" }).click();
  await expect(page.getByRole("heading", { name: "Your plans" })).toBeVisible();
  expect(requests.filter((url) => !url.startsWith(`${baseURL}/`) && !/^(data|blob):/.test(url))).toEqual([]);
  expect(errors).toEqual([]);
});

test("security headers are on every response", async ({ request }) => {
  for (const path of ["/", "/plan/x", "/schema/plan-1.json", "/api/openapi.json", "/no-such-page", "/icon.svg"]) {
    const headers = (await request.get(path)).headers();
    expect(headers["content-security-policy"], path).toMatch(/script-src 'self' 'nonce-[^']+' 'strict-dynamic';/);
    expect(headers["content-security-policy"], path).not.toContain("unsafe-eval");
    expect(headers).toMatchObject({
      "x-content-type-options": "nosniff",
      "x-frame-options": "DENY",
      "referrer-policy": "no-referrer",
    });
    expect(headers["x-powered-by"]).toBeUndefined();
  }
});

test.describe("prediction over HTTP", () => {
  // One after the other: one of them keeps the server so busy that it refuses others.
  test.describe.configure({ mode: "serial" });
  test("the moments of a plan that grows, with hours, exposure and what is erased", async ({ request }) => {
    const answer = await (await request.post("/api/predict", { data: growingClinic })).json();
    expect(answer.moments).toHaveLength(growingClinic.steps.length + 1);
    const replaced = answer.moments[3];
    expect(replaced).toMatchObject({
      after: "s3",
      done: true,
      erased: ["b1"],
      exposure: [{ pool: "p1", redundancy: 0, usual: 1 }],
    });
    expect(replaced.hours.low).toBeLessThan(replaced.hours.expected);
    expect(answer.moments.at(-1).pools[0].usableBytes).toBeGreaterThan(31e12);
    expect(answer.moments.at(-1).capacities.volume).toBeLessThanOrEqual(answer.moments.at(-1).capacities.pool);
  });

  test("a plan is answered with the figures of the core", async ({ request }) => {
    const response = await request.post("/api/predict", { data: clinic });
    expect(response.status()).toBe(200);
    const { pools, moments } = await response.json();
    expect(pools[0]).toMatchObject({
      id: "p1",
      usableBytes: (3_805_207 * 2 + 7_620_645) * 2 ** 20,
      tolerance: 1,
      groups: [{ id: "g1", layout: "hybrid-1" }],
    });
    expect(pools[0].ledger.reduce((sum: number, entry: { bytes: number }) => sum + entry.bytes, 0)).toBe(
      clinic.drives.slice(0, 4).reduce((sum, drive) => sum + drive.bytes, 0),
    );
    const capacities = { pool: pools[0].usableBytes, volume: pools[0].usableBytes, fileSystem: pools[0].usableBytes };
    expect(moments).toEqual([{ after: null, capacities, pools }]);
  });

  test("what is no plan: 400 with pointers; what cannot be: 422; too much: 413", async ({ request }) => {
    const post = (body: string) =>
      request.post("/api/predict", { data: body, headers: { "content-type": "application/json" } });
    const notPlan = await post(JSON.stringify({ ...clinic, drives: [{}] }));
    expect(notPlan.status()).toBe(400);
    expect((await notPlan.json()).errors).toContainEqual(
      expect.objectContaining({ pointer: "/drives/0", message: 'The field "bytes" is missing.' }),
    );
    expect((await post("{")).status()).toBe(400);
    const twice = structuredClone(clinic);
    twice.pools[0]!.spares.push("d1");
    const impossible = await post(JSON.stringify(twice));
    expect(impossible.status()).toBe(422);
    expect((await impossible.json()).findings).toEqual([
      expect.objectContaining({ code: "drive-used-twice", severity: "block", pointer: "/pools/0/spares/0" }),
    ]);
    expect((await post(`${JSON.stringify(clinic)}${" ".repeat(2 ** 20)}`)).status()).toBe(413);
    for (const method of ["GET", "PUT", "TRACE", "PROPFIND"]) {
      const refused = await request.fetch("/api/predict", { method });
      expect([method, refused.status(), refused.headers().allow]).toEqual([method, 405, "POST, OPTIONS"]);
    }
    expect((await request.fetch("/", { method: "TRACE" })).status()).toBe(405);
    const asText = await request.post("/api/predict", { data: "{}", headers: { "content-type": "text/plain" } });
    expect(asText.status()).toBe(415);
  });

  test("who comes when too many wait is asked to come back; the pages are served meanwhile", async ({ request }) => {
    test.slow();
    const pool = { ...clinic.pools[0]!, helpers: [] };
    const steps = Array.from({ length: 2000 }, (_, i) => ({ id: `v${i}`, kind: "verify", pool: pool.id }));
    const answers = Promise.all(
      Array.from({ length: 24 }, () =>
        request.post("/api/predict?parts=moments,pools", { data: { ...clinic, steps } }),
      ),
    );
    expect((await request.get("/")).status()).toBe(200);
    const busy = (await answers).filter((answer) => answer.status() === 503);
    expect(busy.length).toBeGreaterThan(0);
    expect(busy[0]!.headers()["retry-after"]).toBe("5");
    expect((await answers).filter((answer) => answer.status() === 200).length).toBeGreaterThanOrEqual(8);
  });

  test("only the parts that are asked for are answered", async ({ request }) => {
    const answer = await request.post("/api/predict?parts=ledger", { data: growingClinic });
    expect(Object.keys(await answer.json())).toEqual(["pools"]);
  });

  test("the schema and the description are served", async ({ request }) => {
    const schema = await request.get("/schema/plan-1.json");
    expect(schema.headers()["content-type"]).toBe("application/schema+json");
    expect((await schema.json()).title).toBe("Cortijo plan, version 1");
    const description = await (await request.get("/api/openapi.json")).json();
    expect(description.openapi).toBe("3.1.0");
    expect(Object.keys(description.paths["/api/predict"].post.responses)).toEqual([
      "200",
      "400",
      "413",
      "415",
      "422",
      "503",
    ]);
  });
});
