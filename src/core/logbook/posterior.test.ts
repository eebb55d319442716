import fc from "fast-check";
import type { WorkKind } from "../document/plan";
import { correctedHours, ownTimesOf } from "./ownTimes";
import { BOX_SPREAD, ENTRY_SPREAD, factorsOf, KIND_SPREAD, posteriorOf } from "./posterior";
import type { RecordedTime } from "./recordedTime";

const KINDS: readonly WorkKind[] = ["rebuild", "check", "copy"];
const time = (work: WorkKind, ratio: number): RecordedTime => ({ entry: "h1", work, ratio });
const density = (x: number, spread: number) => Math.exp(-0.5 * (x / spread) ** 2) / spread;

/**
 * The same by adding up: for each value of the box's part and of a kind's part on a fine grid, how likely the times are
 * under it. Nothing of the closed form is used.
 */
function byIntegration(work: WorkKind, times: readonly RecordedTime[]): { mean: number; spread: number } {
  const grid = (spread: number, steps: number) =>
    Array.from({ length: 2 * steps + 1 }, (_, i) => ((i - steps) / steps) * 6 * spread);
  const parts = grid(KIND_SPREAD, 120);
  let [total, first, second] = [0, 0, 0];
  for (const box of grid(BOX_SPREAD, 120)) {
    let weight = density(box, BOX_SPREAD);
    let [own, ownFirst, ownSecond] = [1, box, box ** 2 + KIND_SPREAD ** 2];
    for (const kind of KINDS) {
      const logs = times.filter((each) => each.work === kind).map(({ ratio }) => Math.log(ratio));
      if (logs.length === 0) continue;
      let [sum, sumFirst, sumSecond] = [0, 0, 0];
      for (const part of parts) {
        const at = box + part;
        const likely = logs.reduce(
          (product, log) => product * density(log - at, ENTRY_SPREAD),
          density(part, KIND_SPREAD),
        );
        sum += likely;
        sumFirst += likely * at;
        sumSecond += likely * at ** 2;
      }
      weight *= sum;
      if (kind === work && sum > 0) [own, ownFirst, ownSecond] = [1, sumFirst / sum, sumSecond / sum];
    }
    total += weight * own;
    first += weight * ownFirst;
    second += weight * ownSecond;
  }
  const mean = first / total;
  return { mean, spread: Math.sqrt(second / total - mean ** 2 + ENTRY_SPREAD ** 2) };
}

const someTimes = fc.array(
  fc.record({ work: fc.constantFrom(...KINDS), ratio: fc.double({ min: 0.5, max: 2, noNaN: true }) }).map((each) => ({
    entry: "h1",
    ...each,
  })),
  { maxLength: 5 },
);

test("the closed form is what adding up over all values gives", () => {
  fc.assert(
    fc.property(someTimes, fc.constantFrom(...KINDS), (times, work) => {
      const closed = posteriorOf(work, times);
      const summed = byIntegration(work, times);
      expect(closed.mean).toBeCloseTo(summed.mean, 4);
      expect(closed.spread).toBeCloseTo(summed.spread, 4);
    }),
    { numRuns: 15 },
  );
});

test("worked by hand: one rebuild that took a quarter longer", () => {
  // Prior variance of the sum 0.0784 + 0.0361 = 0.1145; one entry of variance 0.01 weighs 0.1145 ÷ 0.1245 = 0.9197.
  const rebuild = posteriorOf("rebuild", [time("rebuild", 1.25)]);
  expect(Math.exp(rebuild.mean)).toBeCloseTo(1.25 ** 0.9197, 4);
  expect(rebuild.spread).toBeCloseTo(Math.sqrt(0.1145 * (1 - 0.9197) + 0.01), 3);
  // Of another kind only the box's part is learned: 0.0784 ÷ 0.1245 = 0.6297.
  const check = posteriorOf("check", [time("rebuild", 1.25)]);
  expect(Math.exp(check.mean)).toBeCloseTo(1.25 ** 0.6297, 4);
  expect(check).toMatchObject({ own: 0, others: 1 });
});

test("nothing known leaves the usual hours as they are; the usual range is nearly that of nothing known", () => {
  const hours = { low: 6.5, expected: 10, high: 16 };
  expect(correctedHours(hours, "rebuild", ownTimesOf({}).factors)).toBe(hours);
  const { low, expected, high } = factorsOf(posteriorOf("rebuild", []));
  expect(expected).toBe(1);
  expect(low).toBeCloseTo(0.64, 2);
  expect(high).toBeCloseTo(1.57, 2);
});

test("a kind that is switched off stays at the rates and counts for no other; one that is left out does not count", () => {
  const done = (id: string, work: WorkKind, hours: number, leftOut?: true) => ({
    id,
    step: id,
    kind: "verify",
    label: "",
    start: "2026-11-01T00:00Z",
    end: new Date(Date.parse("2026-11-01T00:00Z") + hours * 3_600_000).toISOString(),
    outcome: "done" as const,
    work,
    byRates: 10,
    ...(leftOut ? { leftOut } : {}),
  });
  const history = [done("h1", "rebuild", 20), done("h2", "check", 5), done("h3", "check", 5, true)];
  const all = ownTimesOf({ history });
  expect(all.of.check).toMatchObject({ own: 1, others: 1 });
  const some = ownTimesOf({ history, ratesOnly: ["rebuild"] });
  expect(some.of.rebuild).toBeUndefined();
  expect(some.of.check).toMatchObject({ own: 1, others: 0 });
  expect(ownTimesOf({ history: [done("h1", "rebuild", 20, true)] }).of.rebuild).toBeUndefined();
  // What was stopped, ended at once or ran over a forgotten week is no speed.
  expect(ownTimesOf({ history: [{ ...done("h1", "rebuild", 20), outcome: "stopped" }] }).times).toEqual([]);
  expect(ownTimesOf({ history: [done("h1", "rebuild", 0), done("h2", "rebuild", 300)] }).times).toEqual([]);
});

/** Normal values of a seed. */
function normals(seed: number): () => number {
  let state = seed;
  const next = () => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    return (state + 0.5) / 2 ** 32;
  };
  // The low bits of such a generator are poor; two of its values make one.
  return () => Math.sqrt(-2 * Math.log(next())) * Math.cos(2 * Math.PI * next());
}

describe("simulated owners, whose boxes are 0.5 to 2 times the default and whose entries scatter by 0.10", () => {
  const boxes = 2000;
  const run = (entries: number, kindSpread: number) => {
    const normal = normals(7);
    let [error, within] = [0, 0];
    for (let i = 0; i < boxes; i += 1) {
      const box = 2 ** (-1 + (2 * (i + 0.5)) / boxes) * Math.exp(kindSpread * normal());
      const came = () => box * Math.exp(ENTRY_SPREAD * normal());
      const times = Array.from({ length: entries }, () => time("rebuild", came()));
      const { low, expected, high } = factorsOf(posteriorOf("rebuild", times));
      const next = came();
      error += Math.abs(expected - next) / next / boxes;
      within += (next >= low && next <= high ? 1 : 0) / boxes;
    }
    return { error, within };
  };

  test.each([0, KIND_SPREAD])("with a spread of %d of the kind of work", (kindSpread) => {
    const [before, after] = [run(0, kindSpread), run(3, kindSpread)];
    expect(after.error).toBeLessThan(before.error / 3);
    expect(after.within).toBeGreaterThan(0.75);
    expect(after.within).toBeLessThan(0.85);
  });
});
