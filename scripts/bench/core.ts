import { capture } from "../../tests/captures/capture";
import { nominalBytes } from "../../src/core/bytes/nominalBytes";
import type { LayoutId, Plan } from "../../src/core/document/plan";
import { chancesAlong, walkedOf } from "../../src/core/chance/alongPlan";
import { conditionsOf } from "../../src/core/chance/conditions";
import { pointOf } from "../../src/core/chance/inputs";
import { chancesOfPool, forgetChains, overYears } from "../../src/core/chance/poolChance";
import { modelOfPool } from "../../src/core/chance/poolModel";
import { chanceOfChoice } from "../../src/core/compare/choiceChance";
import { clinic } from "../../src/core/document/samples/clinic";
import { compareDrives } from "../../src/core/compare/compare";
import { misfits } from "../../src/core/compare/needs";
import { bestBuys } from "../../src/core/nextDrive/bestBuys";
import { EXAMPLE_PRICES } from "../../src/core/drives/priceList";
import { layouts } from "../../src/core/layouts/registry";
import { survivalOf } from "../../src/core/failures/survival";
import { layoutChoices } from "../../src/core/prediction/layoutChoices";
import { predict } from "../../src/core/prediction/predict";
import { schedulePlan } from "../../src/core/schedule/schedulePlan";
import { CAREFUL } from "../../src/core/sequences/parts";
import { replaceInBestOrder } from "../../src/core/sequences/oneByOne";
import { rescueOf, settingOf } from "../../src/core/rescue/rescueOf";
import { recognise } from "../../src/core/reading/recognise";
import { readBoxText } from "../../src/exchange/boxText/readBoxText";
import { walkPlan } from "../../src/core/walk/walkPlan";
import { rulesOf } from "../../src/core/rules/ruleSets";

const SIZES = [1, 2, 3, 4, 6, 8, 10, 12, 14, 16, 18, 20];

/** A box of 24 drives of 12 sizes in one hybrid, the most bands that it can have. */
function large(): Plan {
  const drives = Array.from({ length: 24 }, (_, i) => ({
    ...clinic.drives[0]!,
    id: `d${i + 1}`,
    serial: `S${i}`,
    bytes: nominalBytes(SIZES[i % SIZES.length]! * 1000),
    place: { bay: i + 1 },
  }));
  return {
    ...clinic,
    box: { ...clinic.box, bays: 24 },
    drives,
    pools: [
      { ...clinic.pools[0]!, groups: [{ id: "g1", layout: "hybrid-2", drives: drives.map((drive) => drive.id) }] },
    ],
  };
}

/**
 * As much as is read at once: real output of a box of four drives, arrays and volumes with all 66 columns, once for
 * each of some two hundred names, and as many texts of arrays.
 */
export function eightMegabytes(): string {
  const folder = "15-hybrid-1-four-sizes-top-idle";
  const list = JSON.parse(capture(folder, "lsblk.txt")) as { blockdevices: unknown[] };
  const one = JSON.stringify(list.blockdevices);
  const arrays = capture(folder, "mdstat.txt");
  const renamed = (text: string, n: number) =>
    text
      .replace(/\bsd([a-z])(?=\d|\b)/g, `sd$1${letters(n)}`)
      .replace(/\b(md|dm-)(\d)\b/g, `$1$2${n}`)
      .replace(/"uuid":"/g, `"uuid":"${n}`)
      .replace(/\bnvme0/g, `nvme${n}`)
      .replace(/0x5000c5aa/g, `0x5000c5aa${n}`)
      .replace(/K(\d)/g, `K${n}x$1`);
  const copies = Math.floor((7.9 * 2 ** 20) / (one.length + arrays.length + 1200));
  const numbers = Array.from({ length: copies }, (_, i) => i + 1);
  const devices = numbers.map((n) => renamed(one, n).slice(1, -1)).join(",");
  return `{"blockdevices": [${devices}]}\n${numbers.map((n) => renamed(arrays, n)).join("\n")}`;
}

const letters = (n: number): string =>
  n === 0 ? "" : letters(Math.floor(n / 26)) + String.fromCharCode(97 + (n % 26));

function median(work: () => void, times = 200, warm = 20): number {
  for (let i = 0; i < warm; i += 1) work();
  const took = Array.from({ length: times }, () => {
    const from = performance.now();
    work();
    return performance.now() - from;
  }).sort((a, b) => a - b);
  return took[Math.floor(times / 2)] ?? NaN;
}

const line = (what: string, ms: number, budget: number) =>
  console.log(
    `${what.padEnd(64)} ${ms.toFixed(2).padStart(8)} ms   budget ${budget} ms${ms > budget ? "   OVER" : ""}`,
  );

export { growingClinic } from "../../src/core/document/samples/growingClinic";

/** A plan in which 15 of 24 drives are replaced one by one, each verified. */
export function growingPlan(): Plan {
  const plan = large();
  const shelf = Array.from({ length: 15 }, (_, i) => ({
    ...clinic.drives[0]!,
    id: `x${i + 1}`,
    serial: `X${i}`,
    bytes: nominalBytes(24_000),
    place: { shelf: true as const },
  }));
  return {
    ...plan,
    drives: [...plan.drives, ...shelf],
    steps: shelf.flatMap((drive, i): Plan["steps"] => [
      { id: `r${i}`, kind: "replace-drive", drive: `d${i + 1}`, by: drive.id, how: "pulled" },
      { id: `c${i}`, kind: "verify", pool: "p1" },
    ]),
  };
}

/** A pool of 24 drives under a layout, alike or all different in size, age and health. */
function chancePool(layout: LayoutId, different: boolean): Plan {
  const plan = large();
  const drives = plan.drives.map((drive, i) => ({
    ...drive,
    bytes: nominalBytes(1000 * (different ? i + 2 : 12)),
    ...(different ? { purchased: `${2017 + (i % 8)}-0${1 + (i % 9)}` } : {}),
  }));
  const groups = [{ id: "g1", layout, drives: drives.map(({ id }) => id), options: {} }];
  return { ...plan, drives, pools: [{ ...plan.pools[0]!, groups }] };
}

/** Prints the medians of the chances of loss: point figures, since ranges come after them. */
function runChances(): void {
  const point = pointOf({});
  const timeOf = (layout: LayoutId, different: boolean, years: number, times: number) => {
    const plan = chancePool(layout, different);
    const conditions = conditionsOf(plan);
    // Made anew each time: chains that are known would be the easy case.
    return median(
      () => {
        forgetChains();
        const model = modelOfPool(plan, plan.pools[0]!, rulesOf(plan.box.rules), "2026-11-27");
        chancesOfPool(model, point, conditions, overYears(years, conditions));
      },
      times,
      5,
    );
  };
  const slowest = layouts
    .filter(({ id }) => id !== "raid1" && id !== "mirror-onto-one")
    .map(({ id, shortName }) => ({ name: shortName, ms: timeOf(id, false, 1, 15) }))
    .reduce((worst, each) => (each.ms > worst.ms ? each : worst));
  line(`chance of a year: 24 alike drives, the slowest layout (${slowest.name})`, slowest.ms, 2);
  line("chance of a year: 24 different drives, double parity", timeOf("raid6", true, 1, 20), 5);
  line("chance of ten years: 24 different drives, double parity", timeOf("raid6", true, 10, 10), 20);
  line("chance of a year: 24 different drives, hybrid, two safe", timeOf("hybrid-2", true, 1, 10), 100);
  const walk = walkPlan(growingPlan());
  const conditions = conditionsOf(walk.plan);
  line(
    "chances of a plan of 30 steps on 24 drives",
    median(
      () => {
        forgetChains();
        chancesAlong(walkedOf(walk), point, conditions);
      },
      7,
      2,
    ),
    200,
  );
  const drives = chancePool("raid6", true).drives.slice(0, 12);
  const chances = { day: "2026-11-27", own: {}, conditions };
  const { choices } = compareDrives({ drives, rules: rulesOf({ set: "linux-host" }), network: 1, splits: false });
  const driveOf = new Map(drives.map((drive) => [drive.id, drive]));
  const narrow = choices.filter(({ figures }) => figures.tolerance <= 2);
  line(
    `chances of ${narrow.length} ways with 12 drives that survive at most two`,
    median(
      () => {
        forgetChains();
        narrow.forEach(({ pool }) => chanceOfChoice(pool, driveOf, chances));
      },
      7,
      2,
    ),
    100,
  );
}

/** Prints the medians of the core's budgets. */
export async function run(): Promise<void> {
  runChances();
  const plan = large();
  const rules = rulesOf(plan.box.rules);
  const bands = predict(plan).pools[0]!.groups[0]!.bands;
  const ids = plan.drives.map((drive) => drive.id);
  line(
    "predict a pool of 24 drives, 12 bands",
    median(() => predict(plan)),
    10,
  );
  const slowest = layouts
    .map((layout) => {
      const group = { ...plan.pools[0]!.groups[0]!, layout: layout.id };
      const other: Plan = { ...plan, pools: [{ ...plan.pools[0]!, groups: [group] }] };
      return { name: layout.shortName, ms: median(() => predict(other), 60) };
    })
    .reduce((worst, each) => (each.ms > worst.ms ? each : worst));
  line(`predict a pool of 24 drives, the slowest layout (${slowest.name})`, slowest.ms, 2);
  line(
    "all layouts on 24 drives",
    median(() => layoutChoices(plan.drives, rules)),
    20,
  );
  const gone = new Set(["d1", "d2", "d3"]);
  const triple = { ...plan.pools[0]!.groups[0]!, layout: "triple-parity" as const };
  const lacking: Plan = {
    ...growingPlan(),
    drives: growingPlan().drives.map((drive) => (gone.has(drive.id) ? { ...drive, state: "failed" as const } : drive)),
    pools: [{ ...plan.pools[0]!, groups: [triple] }],
  };
  line(
    "what to do now: 24 drives, three of them gone, 30 steps planned",
    median(() => settingOf(lacking, "p1", "TB", null) && rescueOf(settingOf(lacking, "p1", "TB", null)!), 15, 3),
    300,
  );
  const mixed = [1, 2, 3, 4, 4, 6, 8, 8, 10, 12, 14, 16].map((tb, i) => ({
    ...clinic.drives[0]!,
    id: `m${i + 1}`,
    bytes: nominalBytes(tb * 1000),
  }));
  const different = SIZES.map((tb, i) => ({ ...clinic.drives[0]!, id: `n${i + 1}`, bytes: nominalBytes(tb * 1000) }));
  const request = { rules, network: 117e6, splits: true };
  line(
    "layouts and every split of 12 mixed drives (10 sizes)",
    median(() => compareDrives({ ...request, drives: mixed }), 15, 3),
    150,
  );
  line(
    "layouts and every split of 12 drives of 12 sizes",
    median(() => compareDrives({ ...request, drives: different }), 15, 3),
    150,
  );
  line(
    "layouts and equal groups of 24 drives",
    median(() => compareDrives({ ...request, drives: plan.drives, splits: false }), 40, 5),
    20,
  );
  const { choices } = compareDrives({ ...request, drives: mixed });
  line(
    `a change of need over ${choices.length} choices`,
    median(() =>
      choices.map((choice) => misfits(choice, { tolerance: 2, usableBytes: 3e13, idleShare: 0.1, grows: "by-drive" })),
    ),
    16,
  );
  line(
    "the best one and two drives to buy, 12 sizes",
    median(() => bestBuys(clinic, clinic.pools[0]!, EXAMPLE_PRICES), 40, 5),
    1000,
  );
  const eight: Plan = {
    ...plan,
    box: { ...plan.box, bays: 8 },
    drives: different.slice(0, 8).map((drive, i) => ({ ...drive, place: { bay: i + 1 } })),
    pools: [
      {
        ...plan.pools[0]!,
        groups: [{ id: "g1", layout: "hybrid-1", drives: different.slice(0, 8).map((drive) => drive.id), options: {} }],
      },
    ],
  };
  const news = eight.drives.map((drive, i) => ({
    ...drive,
    id: `b${i + 1}`,
    bytes: nominalBytes(24_000),
    place: { shelf: true as const },
  }));
  line(
    "the best order of 8 drives of 8 sizes (in a worker)",
    median(
      () =>
        replaceInBestOrder(
          "g1",
          eight.drives.map((drive) => drive.id),
          news,
          { variants: CAREFUL },
          { plan: eight, document: eight, rules, family: "TB", day: "2026-11-23" },
        ),
      5,
      1,
    ),
    1500,
  );
  const printed = eightMegabytes();
  line(
    `${(printed.length / 2 ** 20).toFixed(1)} MiB of what a box prints, read and made out`,
    median(
      () => {
        const result = readBoxText(printed);
        if (!result.ok) throw new Error(result.message);
        recognise(result.printed, null);
      },
      7,
      2,
    ),
    300,
  );
  const growing = growingPlan();
  const dated = {
    ...growing,
    calendar: {
      id: "c",
      start: "2026-11-23",
      timeZone: "Europe/Madrid",
      deliveryDays: 3,
      hands: [{ days: [6, 7], from: "09:00", to: "20:00" }],
      excluded: [],
    },
  };
  const datedWalk = walkPlan(dated);
  line(
    "30 steps turned into dates",
    median(() => schedulePlan(datedWalk, dated.calendar), 20, 3),
    50,
  );
  line(
    "walk 24 drives, 30 steps",
    median(() => walkPlan({ ...growing, pools: structuredClone(growing.pools) }), 40, 5),
    10,
  );
  const long: Plan = {
    ...growing,
    steps: Array.from({ length: 1000 }, (_, i): Plan["steps"][number] =>
      i < 15
        ? growing.steps[i * 2]!
        : i % 2 === 0
          ? { id: `t${i}`, kind: "verify", pool: "p1" }
          : {
              id: `t${i}`,
              kind: "replace-drive",
              drive: i % 4 === 1 ? "x1" : "d1",
              by: i % 4 === 1 ? "d1" : "x1",
              how: "pulled",
            },
    ),
  };
  line(
    "walk 24 drives, 1000 steps",
    median(() => walkPlan({ ...long, pools: structuredClone(long.pools) }), 5, 1),
    500,
  );
  const before = walkPlan(long);
  line(
    "the same after an edit of the last step",
    median(
      () =>
        walkPlan(
          { ...long, steps: [...long.steps.slice(0, -1), { id: "new", kind: "verify", pool: "p1" }] },
          "TB",
          before,
        ),
      10,
      2,
    ),
    16,
  );
  line(
    "failure counting, 24 drives, all sets up to 4 failed",
    median(() => survivalOf(bands, ids, 4)),
    50,
  );
}
