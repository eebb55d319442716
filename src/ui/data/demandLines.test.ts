import { coveredClinic } from "@/core/document/samples/coveredClinic";
import { demand } from "@/core/schedule/demand";
import { timesByHours } from "@/core/schedule/stepTimes";
import { walkPlan } from "@/core/walk/walkPlan";
import { demandLines, demandRows } from "./demandLines";

const walked = walkPlan(coveredClinic);
const times = timesByHours(walked);
const demands = demand(walked, times);
const rows = demandRows(demandLines(walked, { demands, times }));

test("what is stored meets what there is space for on the day on which the data is full", () => {
  expect(demands).toHaveLength(1);
  const [{ fullWithPlan }] = demands as [(typeof demands)[0]];
  expect(fullWithPlan).not.toBeNull();
  for (const { day, stored, space } of rows) expect(stored <= space * 1.0001).toBe(day < fullWithPlan! + 1);
});

test("each change of the space has a row of its own, between those of each half year", () => {
  expect(rows[0]).toMatchObject({ day: 0 });
  const sizes = new Set(walked.moments.map((_, i) => demandLines(walked, { demands, times }).space[i]?.bytes));
  expect(new Set(rows.map(({ space }) => space))).toEqual(sizes);
  expect(rows.filter(({ day }) => day > 40).every(({ day }, i, all) => i === 0 || day - all[i - 1]!.day > 150)).toBe(
    true,
  );
});
