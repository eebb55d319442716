import fc from "fast-check";
import { applyCommand } from "../commands/applyCommand";
import { emptyPlan } from "../document/emptyPlan";
import { rulesOf } from "../rules/ruleSets";
import { drivesOfTB } from "../testing/arbitraries";
import { predict } from "./predict";
import { splitChoices } from "./splitChoices";

const rules = rulesOf({ set: "classic-raid" });

test("six drives: three mirrored pairs or two groups of three; eight: also RAID 60", () => {
  const shape = (...tb: number[]) =>
    splitChoices(drivesOfTB(...tb), rules).map(({ name, groups, tolerance }) => [
      name,
      groups.length,
      groups[0]!.length,
      tolerance,
    ]);
  expect(shape(4, 4, 4, 4, 4, 4)).toEqual([
    ["mirrored pairs", 3, 2, 1],
    ["RAID 50", 2, 3, 1],
  ]);
  expect(shape(4, 4, 4, 4, 4, 4, 4, 4)).toEqual([
    ["mirrored pairs", 4, 2, 1],
    ["RAID 50", 2, 4, 1],
    ["RAID 60", 2, 4, 2],
  ]);
  expect(shape(4, 4, 4)).toEqual([]);
});

test("drives of like size come together: 2 × (4 + 4 + 4) and 2 × (8 + 8 + 8) give 24 TB", () => {
  const split = splitChoices(drivesOfTB(4, 8, 4, 8, 4, 8), rules).find(({ name }) => name === "RAID 50")!;
  expect(split.groups).toEqual([
    ["d2", "d4", "d6"],
    ["d1", "d3", "d5"],
  ]);
  expect(split.usableBytes / 1e12).toBeCloseTo(24, 1);
});

test("what is offered is what the pool then holds and survives", () => {
  fc.assert(
    fc.property(fc.array(fc.constantFrom(2, 4, 8, 12), { minLength: 4, maxLength: 12 }), (sizes) => {
      const plan = {
        ...emptyPlan("x"),
        box: { name: "x", bays: 12, rules: { set: "classic-raid" as const } },
        drives: drivesOfTB(...sizes),
      };
      for (const { groups, layout, usableBytes, tolerance } of splitChoices(plan.drives, rules)) {
        const made = applyCommand(plan, { kind: "make-groups", groups, layout });
        expect(made.ok && predict(made.plan).pools[0]).toMatchObject({ usableBytes, tolerance });
      }
    }),
  );
});
