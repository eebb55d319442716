import type { StepBody } from "@/core/document/plan";
import { numbered } from "@/core/testing/anySteps";
import { boxWith } from "@/core/testing/boxWith";
import { DAY } from "@/core/testing/dataPlan";
import { walkPlan } from "@/core/walk/walkPlan";
import { actTrial } from "./actTrial";
import { actTitle, trialWords } from "./actWords";

const plan = boxWith("classic-raid", "raid5", [4, 4, 4], [4, 8]);
const replace: StepBody = { kind: "replace-drive", drive: "d1", by: "x1", how: "pulled" };
const widen: StepBody = { kind: "widen-group", group: "g1", drives: ["x2"] };
const tried = (steps: StepBody[], planned: StepBody[] = [], at = 0) =>
  actTrial(walkPlan(numbered(plan, planned)), at, steps, "TB", DAY);

test("what steps come to is the difference that they make at their moment of the plan", () => {
  const one = tried([widen]);
  expect(one.after - one.before).toBeGreaterThan(3.9e12);
  expect(one.blocks).toEqual([]);
  expect(trialWords(one, "TB")).toMatch(/^1 step, about .*\. Usable 8\.00\sTB → 12\.00\sTB\.$/);
  // Without a backup before it a rewrite is to be heeded, before it is planned.
  expect(one.warnings).toEqual([expect.stringMatching(/^Widening rewrites all that is stored/)]);
  expect(tried([{ kind: "back-up", pool: "p1", to: "b" }, widen]).warnings).toEqual([]);
  const later = tried([replace], [widen], 1);
  expect(later.before).toBe(one.after);
  expect(trialWords(later, "TB")).toMatch(/^1 step, .*\. Usable stays; for .* no drive may fail\.$/);
  expect(later.hours).toBeGreaterThan(0);
});

test("what stands against it is said instead, and a way that would do is offered with its steps in place", () => {
  const against = tried([{ ...widen, drives: ["d2"] }]);
  expect(against.blocks.length).toBeGreaterThan(0);
  expect(trialWords(against, "TB")).toBe(against.blocks[0]!.message);
  expect(against.instead).toBeNull();
  const stripe = boxWith("classic-raid", "raid1", [4, 4], [4, 4]);
  const level: StepBody = { kind: "change-level", group: "g1", layout: "raid6", drives: ["x1", "x2"] };
  const verify: StepBody = { kind: "verify", pool: "p1" };
  const split = actTrial(walkPlan(stripe), 0, [verify, level, verify], "TB", DAY);
  expect(split.instead?.steps.map((step) => step.kind)).toEqual(["verify", "change-level", "change-level", "verify"]);
  expect(split.instead?.label).toMatch(/^Split it/);
});

test("how often the box is off to change drives is said with it", () => {
  const mirror = boxWith("desktop-mirror", "raid1", [4, 4], [8, 8]);
  const both: StepBody[] = [replace, { ...replace, drive: "d2", by: "x2" }];
  expect(trialWords(actTrial(walkPlan(mirror), 0, both, "TB", DAY), "TB")).toMatch(
    /no drive may fail; the box is off for about 15 minutes, twice\.$/,
  );
});

test("no steps come to nothing", () => {
  expect(tried([])).toMatchObject({ hours: 0, bareHours: 0, blocks: [], instead: null });
});

test("an act is called by what it does to which drives", () => {
  expect(actTitle({ kind: "replace", drive: "d1", by: "x2" }, plan, "TB")).toMatch(
    /^Replace the 4\sTB .* by the 8\sTB /,
  );
  expect(actTitle({ kind: "join", group: "g1", drives: ["x1", "x2"] }, plan, "TB")).toMatch(/^4\sTB \+ 8\sTB for P$/);
  expect(actTitle({ kind: "pull", drive: "gone" }, plan, "TB")).toBe("Take a drive out for good");
});
