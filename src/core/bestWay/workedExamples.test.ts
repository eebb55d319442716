import { ended, last, yearly } from "../testing/growing";
import { frontSteps } from "./front";
import { HABITS, habitOf } from "./habits";

const SOLD = [
  { size: 4, cents: 9000 },
  { size: 8, cents: 16000 },
  { size: 12, cents: 24000 },
  { size: 16, cents: 30000 },
];

const hybrid = yearly("hybrid-1", [[4, 4, 8]], [8, 12, 14, 20, 24, 28], SOLD, 4, { joining: "as-largest-member" });
const parity = yearly("raid5", [[4, 4, 4]], [8, 11, 14, 16, 24, 30], SOLD, 5, { joining: "as-smallest-member" });
const late = SOLD.map((each) => (each.size === 16 ? { ...each, from: 2 } : each));
const pairs = yearly("raid1", [[4, 4]], [4, 7, 12, 16, 24, 30], late, 6, { widening: "further-group" });

test("the worked examples come out to the cent", () => {
  expect(ended(hybrid)).toMatchObject({ least: 47642, best: { cents: 47642 } });
  expect(ended(parity)).toMatchObject({ least: 58854, best: { cents: 58854 } });
  expect(ended(pairs)).toMatchObject({ least: 82566, best: { cents: 82566 } });
  expect(ended({ ...pairs, equalPairs: true })).toMatchObject({ least: 82566, best: { cents: 82566 } });
});

test("what habits come to", () => {
  const cents = (instance: typeof hybrid) => HABITS.map((habit) => habitOf(instance, habit)?.cents);
  expect(cents(hybrid).slice(0, 2)).toEqual([64906, 48870]);
  expect(cents(parity).slice(0, 2)).toEqual([67880, 110349]);
  expect(cents(pairs).slice(0, 2)).toEqual([152788, 107970]);
});

test("two larger drives cost a little more and leave data exposed half as long", () => {
  const { ways, complete } = last(frontSteps(hybrid, "hours"));
  expect(complete).toBe(true);
  expect(ways.map(({ cents }) => cents)).toEqual([47642, 48870]);
  expect((ways[1]?.hours ?? 0) / (ways[0]?.hours ?? 1)).toBeCloseTo(0.5, 9);
});
