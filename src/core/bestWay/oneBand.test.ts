import { cheapestOfEveryWay } from "../testing/everyWay";
import { ended, hard, last, small } from "../testing/growing";
import { boundOf } from "./bounds";
import { boxesOf } from "./boxes";
import type { Instance } from "./instance";
import { wayOf } from "./label";
import { cheapestOfOneBand, staysOneBand } from "./oneBand";

const byBatches = (instance: Instance) => {
  const boxes = boxesOf(instance);
  return last(cheapestOfOneBand(instance, boxes, boundOf(instance, boxes), null));
};

test("what batches cost at least is never above the truth, and is it wherever no drive would have to join below", () => {
  let [proved, below] = [0, 0];
  for (let number = 0; number < 700; number += 1) {
    const instance = small(number, number % 2 === 1);
    if (!staysOneBand(instance)) continue;
    const { best, least } = byBatches(instance);
    const truth = cheapestOfEveryWay(instance);
    const cents = best?.cents ?? Infinity;
    expect([number, least <= truth, truth <= cents]).toEqual([number, true, true]);
    if (least === cents) proved += 1;
    else below += 1;
  }
  // Both are met with.
  expect(proved).toBeGreaterThan(150);
  expect(below).toBeGreaterThan(2);
  expect(below).toBeLessThan(6);
});

test.each([2, 7, 15])(
  "eight unlike drives in twelve bays, near what they can hold: proved by few boxes (%i)",
  (number) => {
    const { best, least, boxes } = ended(hard(number));
    expect(least).toBe(best?.cents);
    expect(boxes).toBeLessThan(8000);
  },
);

test("the same with drives that are retired", () => {
  const instance = { ...hard(8), life: 84 };
  const { best, least, boxes } = ended(instance);
  expect(least).toBe(best?.cents);
  expect(best?.cents).toBeGreaterThan(ended(hard(8)).best!.cents);
  expect(boxes).toBeLessThan(6000);
});

test("a batch is told as single acts: with their prices, the last of them lasting", () => {
  const instance = hard(5);
  const { best } = byBatches(instance);
  const acts = best ? wayOf(best) : [];
  expect(acts.reduce((sum, { cents }) => sum + cents, 0)).toBe(best?.cents);
  for (const { act, month, cents } of acts) {
    const bought = act.kind === "add" || act.kind === "replace" ? act.bought : null;
    expect(instance.sold.find(({ bytes }) => bytes === bought?.bytes)?.cents[month]).toBe(cents);
  }
  // Each month in which something is done begins where what there was no longer suffices.
  const months = [...new Set(acts.map(({ month }) => month))];
  expect(months.length).toBeGreaterThan(3);
  for (const month of months.slice(1)) {
    const before = acts.findLast((each) => each.month < month);
    expect(before?.box.until).toBe(month);
  }
  expect(acts.at(-1)?.box.until).toBe(instance.months);
});
