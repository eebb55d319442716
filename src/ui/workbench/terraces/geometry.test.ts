import fc from "fast-check";
import { predict } from "@/core/prediction/predict";
import { anyPlan } from "@/core/testing/anyPlan";
import { clinic } from "@/core/document/samples/clinic";
import { terraceGeometry } from "./geometry";

const draw = (plan: typeof clinic, width = 900, height = 400) =>
  terraceGeometry(plan, predict(plan), { width, height }, "TB");

test("every drive in a bay is as tall as its bytes, and cut without gaps from foot to top", () => {
  fc.assert(
    fc.property(anyPlan, fc.integer({ min: 300, max: 1600 }), (plan, width) => {
      const made = draw(plan, width);
      expect(made.columns.map((column) => column.bay)).toEqual(Array.from({ length: plan.box.bays }, (_, i) => i + 1));
      for (const { drive, top, segments, x, width: own } of made.columns) {
        expect(x >= 0 && own > 0).toBe(true);
        if (!drive) continue;
        expect(made.foot - top).toBeCloseTo((drive.bytes / made.most) * (made.foot - made.top), 3);
        const sum = segments.reduce((total, segment) => total + segment.height, 0);
        expect(sum).toBeCloseTo(made.foot - top, 3);
        for (const segment of segments) {
          expect(segment.height).toBeGreaterThanOrEqual(0);
          expect(segment.y).toBeGreaterThanOrEqual(top - 0.001);
          expect(segment.y + segment.height).toBeLessThanOrEqual(made.foot + 0.001);
        }
      }
      const lefts = made.columns.map((column) => column.x);
      expect(lefts).toEqual([...lefts].sort((a, b) => a - b));
    }),
  );
});

test("the clinic's hybrid: bands run level over the drives that reach them, and its run carries its name once", () => {
  const made = draw(clinic);
  const heights = new Map<number, Set<string>>();
  for (const { segments } of made.columns)
    for (const segment of segments)
      if (segment.band) {
        const { index } = segment.band;
        heights.set(index, (heights.get(index) ?? new Set()).add(segment.kind));
      }
  expect([...heights.keys()].sort()).toEqual([0, 1]);
  expect(made.runs.filter((run) => run.named)).toHaveLength(1);
  expect(made.runs[0]).toMatchObject({ pool: "p1", group: "g1" });
  expect(made.ticks[0]).toMatchObject({ bytes: 0 });
  expect(made.ticks.length).toBeLessThanOrEqual(8);
});
