import { CAUSES } from "./otherCauses";
import { causeWords, chanceWords, ofBoxes, rangeWords, shortChanceWords } from "./chanceWords";

test.each([
  [0, "none"],
  [9e-6, "fewer than 1 of 100,000"],
  [0.000_014, "1 of 100,000"],
  [0.000_277, "3 of 10,000"],
  [0.002_947, "3 of 1,000"],
  [0.0254, "25 of 1,000"],
  [0.1077, "110 of 1,000"],
  [0.996, "1,000 of 1,000"],
  [1, "all"],
])("%d is told as %s", (chance, words) => expect(ofBoxes(chance)).toBe(words));

test.each([
  [{ low: 0.0009, expected: 0.002947, high: 0.0544 }, "between 1 and 54"],
  [{ low: 0.000_01, expected: 0.000_277, high: 0.0066 }, "up to 66"],
  [{ low: 0.027, expected: 0.1077, high: 0.7 }, "between 27 and 700"],
  [{ low: 1e-9, expected: 1e-8, high: 1e-7 }, "whatever the inputs"],
  [{ low: 1e-9, expected: 1e-6, high: 1.4e-4 }, "at most 1 of 10,000"],
])("ranges are counted among as many boxes: %p", (range, words) => expect(rangeWords(range)).toBe(words));

test("a chance has its range as soon as that is known, and none where nothing is open", () => {
  expect(chanceWords(0.003)).toBe("3 of 1,000");
  expect(chanceWords({ low: 0.001, expected: 0.003, high: 0.05 })).toBe("3 of 1,000 (between 1 and 50)");
  expect(chanceWords({ low: 1, expected: 1, high: 1 })).toBe("all");
  expect(shortChanceWords({ low: 0.000_01, expected: 0.0003, high: 0.0066 })).toBe("3 of 10,000 (0 to 66)");
  expect(shortChanceWords(1e-7)).toBe("fewer than 1 of 100,000");
  expect(new Set(CAUSES.map(causeWords)).size).toBe(CAUSES.length);
});
