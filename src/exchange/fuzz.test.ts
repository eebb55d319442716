import { fuzz } from "../../scripts/attack/fuzz";

test("of ten thousand spoilt inputs no reader throws, and no answer has anything but numbers where they belong", () => {
  const { tried, wrong } = fuzz(process.cwd(), 10_000, 20261126);
  expect(wrong).toEqual([]);
  expect(Object.keys(tried)).toHaveLength(11);
});
