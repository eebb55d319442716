import fc from "fast-check";
import { planFrom } from "../commands/planFrom";
import { checkPlan } from "../document/readPlan";
import type { RuleSetId } from "../document/plan";
import { newDrivesOf, typedDrives } from "../drives/typedDrives";
import { predict } from "../prediction/predict";
import { ruleSets, rulesOf } from "../rules/ruleSets";
import { NETWORKS } from "../speeds/speed";
import { compareDrives } from "./compare";
import { MOST_LISTED, shortlist } from "./shortlist";

const drivesOf = (text: string) => {
  const read = typedDrives(text);
  if (!read.ok) throw new Error(read.message);
  return read.drives.flatMap(newDrivesOf);
};
const compared = (set: RuleSetId, text: string) => {
  const drives = drivesOf(text).map((drive, i) => ({ ...drive, id: `d${i + 1}`, place: { shelf: true as const } }));
  return compareDrives({ drives, rules: rulesOf({ set }), network: NETWORKS[0].rate, splits: false }).choices;
};
const listed = (set: RuleSetId, text: string) => shortlist(compared(set, text)).map(({ name }) => name);

test("three odd drives, four equal ones, two, and one", () => {
  expect(listed("hybrid-box", "3, 4 and 8 TB")).toEqual(["Hybrid (one)", "RAID 5", "RAID 1", "Separate"]);
  expect(listed("classic-raid", "4 × 4 TB")).toEqual(["RAID 5", "RAID 6", "Mirrored pairs", "RAID 1", "Separate"]);
  expect(listed("desktop-mirror", "4, 8 TB")).toEqual(["RAID 1", "Separate"]);
  expect(listed("classic-raid", "4 TB")).toEqual(["Separate"]);
});

test("for each number of failures that can be survived, nothing that is left out holds more", () => {
  const anything = fc.record({
    set: fc.constantFrom(...ruleSets.map(({ id }) => id)),
    sizes: fc.array(fc.constantFrom(1, 2, 3, 4, 6, 8, 12, 16), { minLength: 1, maxLength: 8 }),
  });
  fc.assert(
    fc.property(anything, ({ set, sizes }) => {
      const choices = compared(set, `${sizes.join(", ")} TB`);
      const list = shortlist(choices);
      expect(list.length).toBeLessThanOrEqual(MOST_LISTED);
      expect(list.length > 0).toBe(choices.length > 0);
      for (const choice of choices) {
        const rivals = list.filter(({ figures }) => figures.tolerance >= choice.figures.tolerance);
        expect(Math.max(...rivals.map(({ figures }) => figures.usableBytes))).toBeGreaterThanOrEqual(
          choice.figures.usableBytes,
        );
      }
    }),
  );
});

test("what is listed becomes a plan that opens, and holds what was said", () => {
  for (const { id: set } of ruleSets) {
    const text = set === "desktop-mirror" ? "4, 8 TB" : "4, 4, 8 and 12 TB";
    for (const choice of shortlist(compared(set, text))) {
      const groups = choice.groups.map(({ layout, drives }) => ({
        layout,
        drives: drives.map((id) => Number(id.slice(1)) - 1),
      }));
      const made = planFrom({ name: "Home", bays: 4, rules: { set }, drives: drivesOf(text), groups });
      if (!made.ok) throw new Error(made.reason);
      expect(checkPlan(made.plan).ok).toBe(true);
      expect(predict(made.plan).pools.map(({ usableBytes }) => usableBytes)).toEqual([choice.figures.usableBytes]);
    }
  }
  const tooFew = planFrom({
    name: "Home",
    bays: 2,
    rules: { set: "classic-raid" },
    drives: drivesOf("3 × 4 TB"),
    groups: [],
  });
  expect(tooFew).toMatchObject({ ok: false, reason: expect.stringMatching(/not enough free bays/) });
});
