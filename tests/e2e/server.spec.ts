import { expect, test } from "@playwright/test";
import { spawn } from "node:child_process";
import { once } from "node:events";
import { Dice } from "../../src/core/testing/likelyPlan";
import { clinic } from "../../src/core/document/samples/clinic";
import { kills } from "../../scripts/attack/kills";
import { spoiltRequests } from "../../scripts/attack/requests";

/** A server of its own. */
function serve(port: string) {
  const server = spawn(process.execPath, ["scripts/serve.mjs"], { env: { ...process.env, PORT: port } });
  let said = "";
  for (const stream of [server.stdout, server.stderr]) stream.on("data", (data: Buffer) => (said += data.toString()));
  return { server, said: () => said };
}

test("a port that is none is named in a sentence, and the program ends with 1", async () => {
  const { server, said } = serve("eighty");
  expect(await once(server, "exit")).toEqual([1, null]);
  expect(said()).toMatch(/PORT is "eighty", which is no port number\. Use one from 1 to 65535/);
});

test("scripts come compressed also to browsers that are not offered Brotli", async ({ request }) => {
  const [script] = /\/_next\/static\/chunks\/[^"]+\.js/.exec(await (await request.get("/")).text())!;
  for (const encoding of ["br", "gzip"]) {
    const answer = await request.get(script, { headers: { "accept-encoding": encoding } });
    expect(answer.headers()["content-encoding"]).toBe(encoding);
  }
});

test("a server that is told to stop answers what is under way, and ends with 0", async () => {
  const { server, said } = serve("3189");
  await expect.poll(said).toContain("http://localhost:3189");
  const steps = Array.from({ length: 2000 }, (_, i) => ({ id: `v${i}`, kind: "verify", pool: "p1" }));
  const body = JSON.stringify({ ...clinic, steps });
  const headers = { "content-type": "application/json" };
  const answer = fetch("http://localhost:3189/api/predict?parts=moments", { method: "POST", headers, body });
  await new Promise((resolve) => setTimeout(resolve, 150));
  server.kill("SIGTERM");
  const ended = once(server, "exit");
  expect((await (await answer).json()).moments).toHaveLength(2001);
  expect(await ended).toEqual([0, null]);
});

test("of two hundred spoilt requests none gets a server error but to come back later", async ({ request }) => {
  const next = spoiltRequests(200, 20261126);
  const wrong: string[] = [];
  for (let sent = next(); sent; sent = next()) {
    const { path, method, headers, body } = sent;
    const response = await request.fetch(path, { method, headers, ...(body === undefined ? {} : { data: body }) });
    if (response.status() >= 500 && response.status() !== 503) wrong.push(`${response.status()} ${method} ${path}`);
  }
  expect(wrong).toEqual([]);
});

test("a browser that is killed in mid-edit loses nothing that was shown as saved", async ({ baseURL }) => {
  const dice = new Dice(20261126);
  const result = await kills(baseURL!, process.env.CHROMIUM ?? "/usr/bin/chromium", 2, () => dice.below(1e6) / 1e6);
  expect(result).toMatchObject({ kills: 2, lost: 0 });
  expect(result.edits).toBeGreaterThan(1);
});
