import fc from "fast-check";
import { coveredClinic } from "@/core/document/samples/coveredClinic";
import type { Plan } from "@/core/document/plan";
import { timesByCalendar, timesByHours } from "@/core/schedule/stepTimes";
import { schedulePlan } from "@/core/schedule/schedulePlan";
import { walkPlan } from "@/core/walk/walkPlan";
import { stripGeometry } from "./stripGeometry";

const SIZE = { width: 900, height: 170 };
const strip = (plan: Plan, size = SIZE, dated = false) => {
  const walked = walkPlan(plan);
  const schedule = dated && plan.calendar ? schedulePlan(walked, plan.calendar) : null;
  const times = schedule ? timesByCalendar(schedule) : timesByHours(walked);
  return { walked, made: stripGeometry(walked, size, { times, schedule }) };
};
const numbers = (points: string) => points.split(" ").map((point) => point.split(",").map(Number) as [number, number]);

test("time runs from left to right, each step is wide enough to be seen, and all stays within the drawing", () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 200, max: 2000 }),
      fc.integer({ min: 0, max: 8 }),
      fc.boolean(),
      (width, count, dated) => {
        const plan = { ...coveredClinic, steps: coveredClinic.steps.slice(0, count) };
        const { walked, made } = strip(plan, { width, height: 170 }, dated);
        expect(made.at).toHaveLength(walked.moments.length);
        expect(made.at).toEqual([...made.at].sort((a, b) => a - b));
        for (const mark of made.marks) {
          expect(mark.width).toBeGreaterThan(0);
          expect(mark.x).toBeGreaterThanOrEqual(0);
          expect(mark.x + mark.width).toBeLessThanOrEqual(width);
        }
        for (const line of [...made.lines, ...(made.stored ? [made.stored] : [])])
          for (const [x, y] of numbers(line.points)) {
            expect(x >= 0 && x <= width).toBe(true);
            expect(y >= 0 && y <= made.foot).toBe(true);
          }
        expect(made.days.map((day) => day.x)).toEqual(made.days.map((day) => day.x).sort((a, b) => a - b));
      },
    ),
  );
});

test("the lines stand as high as what they tell, to scale", () => {
  const { walked, made } = strip(coveredClinic);
  const last = walked.moments.at(-1)!;
  for (const { id, end } of made.lines)
    expect((made.foot - end) / (made.foot - 10)).toBeCloseTo(last.capacities[id] / made.most, 6);
  expect(made.lines.map((line) => line.id)).toEqual(["pool", "volume", "fileSystem"]);
  expect(made.stored!.bytes).toBeGreaterThan(0);
});

test("a window of lowered redundancy stands over the step that lowers it", () => {
  const { walked, made } = strip(coveredClinic);
  const exposed = walked.moments.flatMap(({ walked: step }, i) =>
    step?.exposure.length ? [{ mark: made.marks[i - 1]!, share: step.exposure[0]!.share ?? 1 }] : [],
  );
  expect(exposed.length).toBeGreaterThan(0);
  expect(made.windows.map(({ x, width }) => ({ x, width }))).toEqual(
    exposed.map(({ mark, share }) => ({ x: mark.x, width: mark.width * share })),
  );
  // The first part of a step in which a new drive is filled, and what it brings then comes into use.
  expect(exposed.some(({ share }) => share < 1)).toBe(true);
});

test("without steps, data or a day there is a foot and nothing else", () => {
  const { dataSets: _sets, calendar: _calendar, ...rest } = coveredClinic;
  const { made } = strip({ ...rest, steps: [] });
  expect([made.marks, made.windows, made.days, made.stored]).toEqual([[], [], [], null]);
});
