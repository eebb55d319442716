import loadHighs from "highs";
import { frontSteps } from "../../src/core/bestWay/front";
import type { Instance } from "../../src/core/bestWay/instance";
import { cheapestWay } from "../../src/core/bestWay/search";
import type { LayoutId } from "../../src/core/document/plan";
import { hard, large, medium } from "../../src/core/testing/growing";
import { integerProgram } from "../../src/core/testing/integerProgram";

const COUNT = 20;

/** A search that has not ended by then is not proved. */
const MOST_MS = 6000;

const line = (what: string, value: string, budget = "", over = false) =>
  console.log(`${what.padEnd(68)} ${value.padStart(11)}   ${budget}${over ? "   OVER" : ""}`);

const middle = (values: readonly number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1] ?? 0;

/** How long a search takes, and until a first way is there; what gap is left where it does not end. */
function timed(instance: Instance, most = MOST_MS): { ms: number; first: number; ended: boolean; gap: number } {
  const start = performance.now();
  const steps = cheapestWay(instance);
  let first = Infinity;
  for (;;) {
    const { done, value } = steps.next();
    const ms = performance.now() - start;
    if (value.best) first = Math.min(first, ms);
    const gap = value.best ? 1 - value.least / value.best.cents : 1;
    if (done || ms > most) return { ms, first, ended: done === true, gap };
  }
}

function classOf(layout: LayoutId, name: string, budget: number): void {
  const runs = Array.from({ length: COUNT }, (_, i) => timed(large(layout, i + 1)));
  const ms = middle(runs.map((run) => run.ms));
  const proved = runs.filter((run) => run.ended).length;
  const inTime = runs.filter((run) => run.ended && run.ms < budget).length;
  line(
    `best way, 12 bays, ten years, ${name}: proved, median`,
    `${ms.toFixed(0)} ms`,
    `budget ${budget} ms`,
    ms > budget,
  );
  const worst = Math.max(...runs.map((run) => run.ms)).toFixed(0);
  const gap = Math.max(...runs.map((run) => (run.ended ? 0 : run.gap)));
  line(
    `  proved ${proved} of ${COUNT}, ${inTime} within the budget; worst`,
    `${worst} ms`,
    gap > 0 ? `largest gap left ${(gap * 100).toFixed(1)} %` : "",
    inTime < COUNT - 1,
  );
  const first = middle(runs.map((run) => run.first));
  line("  first usable plan, median", `${first.toFixed(0)} ms`, "budget 200 ms", first > 200);
}

function fronts(): void {
  const times = Array.from({ length: COUNT }, (_, i) => {
    const start = performance.now();
    const steps = frontSteps(large("hybrid-1", i + 1, { replacing: "pull-first" }), "hours");
    while (!steps.next().done && performance.now() - start < 2 * MOST_MS);
    return performance.now() - start;
  });
  const ms = middle(times);
  line("front of money and hours, hybrid, median", `${ms.toFixed(0)} ms`, "budget 3000 ms", ms > 3000);
  line("  worst", `${Math.max(...times).toFixed(0)} ms`);
}

/** What is proved of the hard class within five seconds. */
function hardClass(): void {
  const runs = Array.from({ length: COUNT }, (_, i) => timed(hard(i + 1), 5000));
  const gap = Math.max(...runs.map((run) => (run.ended ? 0 : run.gap)));
  line("best way, the hard class after 5 s: largest gap", `${(gap * 100).toFixed(1)} %`, "budget 10 %", gap > 0.1);
  line("  proved", `${runs.filter((run) => run.ended).length} of ${COUNT}`);
  const pairs = Array.from({ length: 5 }, (_, i) => timed({ ...large("raid1", i + 1), equalPairs: false }, 5000));
  line(
    "  pairs of any two drives: largest gap",
    `${(Math.max(...pairs.map((run) => (run.ended ? 0 : run.gap))) * 100).toFixed(1)} %`,
    "budget 10 %",
  );
}

/** How much slower a general solver of integer programs is on the same questions. */
async function againstGeneral(): Promise<void> {
  // It is bundled here, and looks for its code beside the bundle.
  const highs = await loadHighs({ locateFile: (file) => `${process.cwd()}/node_modules/highs/build/${file}` });
  const ratios = Array.from({ length: 60 }, (_, number) => {
    const instance = medium(number);
    const program = integerProgram(instance);
    let start = performance.now();
    highs.solve(program, { mip_rel_gap: 0, time_limit: 20 });
    const general = performance.now() - start;
    start = performance.now();
    const steps = cheapestWay(instance);
    while (!steps.next().done);
    return general / (performance.now() - start);
  });
  line("a general integer-programming solver takes so many times as long", `${middle(ratios).toFixed(0)} ×`, "median");
  line("  at most, on 60 questions", `${Math.max(...ratios).toFixed(0)} ×`);
}

/** What the hardest of all searches below takes of memory, above what the program had before: it comes across most. */
function memory(): void {
  const before = process.memoryUsage().rss;
  timed(large("hybrid-2", 6));
  const megabytes = (process.memoryUsage().rss - before) / 1e6;
  line("best way: memory of the hardest search", `${megabytes.toFixed(0)} MB`, "budget 200 MB", megabytes > 200);
}

/** Prints the budgets of the best way to grow. */
export async function run(): Promise<void> {
  memory();
  classOf("hybrid-1", "hybrid, one safe", 1000);
  classOf("hybrid-2", "hybrid, two safe", 1000);
  classOf("copies-2", "two copies", 1000);
  classOf("raid1", "equal mirrored pairs", 1000);
  classOf("raid5", "single parity", 2000);
  classOf("raid6", "double parity", 2000);
  fronts();
  hardClass();
  await againstGeneral();
}
