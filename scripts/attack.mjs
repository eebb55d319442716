// Attacks on Cortijo, which print counts: `npm run attack -- fuzz|http|load|worst|kills [how many] [seed]`.
import { mkdirSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { send, serve, watchPage } from "./attack/http.mjs";
import { importBundled } from "./bundle.mjs";
import { build, chromium, install, root } from "./setup.mjs";

const [, , what = "", given, seedGiven] = process.argv;
const USUAL = { fuzz: 1_000_000, http: 20_000, load: 60, worst: 200, kills: 200 };
const count = Number(given ?? USUAL[what]);
const seed = Number(seedGiven ?? Math.floor(Math.random() * 2 ** 31));
if (!Object.hasOwn(USUAL, what) || !(count > 0)) {
  console.error("npm run attack -- fuzz|http|load|worst|kills [how many; for load: seconds] [seed]");
  process.exit(2);
}
install();
build();
console.log(`seed ${seed}`);
mkdirSync(join(root, ".cache"), { recursive: true });

/** A part of the attack, bundled without its packages, some of which the made validators ask for by `require`. */
const part = (name) =>
  importBundled(`scripts/attack/${name}.ts`, `attack-${name}`, {
    packages: "external",
    banner: { js: 'import { createRequire } from "node:module"; const require = createRequire(import.meta.url);' },
  });

const verdict = (wrong) => {
  for (const each of wrong.slice(0, 20)) console.error(each);
  console.log(wrong.length === 0 ? "Nothing went wrong." : `${wrong.length} went wrong.`);
  if (wrong.length > 0) process.exitCode = 1;
};

async function attackFuzz() {
  const { fuzz } = await part("fuzz");
  const { tried, wrong } = fuzz(root, count, seed);
  console.table(tried);
  verdict(wrong);
}

async function attackHttp() {
  const { spoiltRequests } = await part("requests");
  const { base, end } = await serve(3191);
  const stop = await watchPage(base);
  const { statuses, wrong } = await send(
    base,
    8,
    spoiltRequests(count, seed),
    (status, text) => status < 500 || (status === 503 && text.includes("Try again")),
  );
  console.table(statuses);
  console.log(await stop());
  end();
  verdict(wrong);
}

async function attackLoad() {
  const { growingPlan } = await part("requests");
  const { base, end } = await serve(3192);
  const body = JSON.stringify(growingPlan());
  const until = Date.now() + count * 1000;
  const next = () =>
    Date.now() < until
      ? { path: "/api/predict", method: "POST", headers: { "content-type": "application/json" }, body }
      : null;
  const stop = await watchPage(base);
  const { statuses, wrong } = await send(base, 64, next, (status) => status === 200 || status === 503);
  console.table(statuses);
  console.log(await stop());
  end();
  verdict([...wrong, ...Object.keys(statuses).filter((name) => name.startsWith("no answer"))]);
}

async function attackWorst() {
  const { worst } = await part("worst");
  const { slowest, largest, tried } = worst(count, seed);
  const told = ({ cpu, bytes, status, parts, text }) =>
    `${Math.round(cpu)} ms of processor, ${status}, ${(bytes / 1e6).toFixed(2)} MB of answer, parts ` +
    `${parts ?? "all"}, plan of ${text.length} B`;
  writeFileSync(join(root, ".cache/slowest.json"), slowest.text);
  console.log(
    `${tried} valid plans (the slowest is in .cache/slowest.json).\nSlowest: ${told(slowest)}\nLargest: ` +
      `${told(largest)}`,
  );
  const { base, end } = await serve(3193);
  const path = `/api/predict${slowest.parts ? `?parts=${slowest.parts}` : ""}`;
  const request = { path, method: "POST", headers: { "content-type": "application/json" }, body: slowest.text };
  for (let round = 0; round < 5; round += 1) {
    const stop = await watchPage(base);
    let left = 10;
    console.log("Ten of the slowest at once:", (await send(base, 10, () => (left-- > 0 ? request : null))).statuses);
    console.log(await stop());
  }
  end();
}

async function attackKills() {
  const { base, end } = await serve(3194);
  const [{ Dice }, { kills }] = await Promise.all([part("requests"), part("kills")]);
  const dice = new Dice(seed);
  const told = (done, lost) => done % 20 === 0 && console.log(`${done} kills, ${lost} edits lost that were saved`);
  const result = await kills(base, chromium(), count, () => dice.below(1e6) / 1e6, told);
  end();
  console.table([result]);
  verdict(result.lost > 0 ? [`${result.lost} lost`] : []);
}

await { fuzz: attackFuzz, http: attackHttp, load: attackLoad, worst: attackWorst, kills: attackKills }[what]();
process.exit();
