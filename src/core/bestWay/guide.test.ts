import { ended, yearly } from "../testing/growing";

const SOLD = [
  { size: 4, cents: 9000 },
  { size: 8, cents: 16000 },
  { size: 12, cents: 24000 },
  { size: 16, cents: 30000 },
];

test("the guide's examples come out to the cent", () => {
  const hybrid = yearly("hybrid-1", [[4, 4, 8]], [8, 12, 14, 20, 24, 28], SOLD, 4, { joining: "as-largest-member" });
  expect(ended(hybrid)).toMatchObject({ least: 47642, best: { cents: 47642 } });
  const parity = yearly("raid5", [[4, 4, 4]], [8, 11, 14, 16, 24, 30], SOLD, 5, { joining: "as-smallest-member" });
  expect(ended(parity)).toMatchObject({ least: 58854, best: { cents: 58854 } });
  const late = SOLD.map((each) => (each.size === 16 ? { ...each, from: 2 } : each));
  const pairs = yearly("raid1", [[4, 4]], [4, 7, 12, 16, 24, 30], late, 6, { widening: "further-group" });
  expect(ended(pairs)).toMatchObject({ least: 82566, best: { cents: 82566 } });
  expect(ended({ ...pairs, equalPairs: true })).toMatchObject({ least: 82566, best: { cents: 82566 } });
});
