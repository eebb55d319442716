import fc from "fast-check";
import { coveredClinic } from "@/core/document/samples/coveredClinic";
import type { Plan } from "@/core/document/plan";
import { timesByCalendar, timesByHours } from "@/core/schedule/stepTimes";
import { schedulePlan } from "@/core/schedule/schedulePlan";
import { walkPlan } from "@/core/walk/walkPlan";
import { stripGeometry, windowWords } from "./stripGeometry";

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

describe("the words over windows of lowered protection", () => {
  const window = (x: number, width: number, redundancy: number) => ({ step: "", x, width, redundancy });

  test("the most exposed is told at any width, and no word lies on another or leaves the drawing", () => {
    const anyWindows = fc
      .array(
        fc.tuple(fc.integer({ min: 1, max: 90 }), fc.integer({ min: 1, max: 200 }), fc.integer({ min: 0, max: 3 })),
        {
          minLength: 1,
          maxLength: 30,
        },
      )
      .map((parts) => {
        let x = 0;
        return parts.map(([gap, width, redundancy]) => {
          const made = window(x + gap, width, redundancy);
          x += gap + width;
          return made;
        });
      });
    fc.assert(
      fc.property(anyWindows, (windows) => {
        const end = windows.at(-1)!.x + windows.at(-1)!.width;
        const width = Math.max(300, end + 100);
        const words = windowWords(windows, width).sort((a, b) => a.x - b.x);
        expect(Math.min(...words.map(({ redundancy }) => redundancy))).toBe(
          Math.min(...windows.map(({ redundancy }) => redundancy)),
        );
        const half = ({ text }: { text: string }) => text.length * 2.8;
        words.forEach((word, i) => {
          expect(word.x - half(word)).toBeGreaterThanOrEqual(0);
          expect(word.x + half(word)).toBeLessThanOrEqual(width - 100);
          if (i > 0) expect(word.x - half(word)).toBeGreaterThan(words[i - 1]!.x + half(words[i - 1]!));
        });
      }),
    );
  });

  test("neighbours of one kind share a word; others have one each", () => {
    expect(windowWords([window(40, 30, 0), window(72, 30, 0), window(180, 20, -1), window(300, 2, 1)], 600)).toEqual([
      // Nothing is survived any more where it is lost already.
      { x: 190, redundancy: -1, text: "lost already" },
      { x: 71, redundancy: 0, text: "survives none" },
      { x: 301, redundancy: 1, text: "survives only 1" },
    ]);
  });
});
