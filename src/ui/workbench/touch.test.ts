import type { StepBody } from "@/core/document/plan";
import { numbered } from "@/core/testing/anySteps";
import { boxWith } from "@/core/testing/boxWith";
import { walkPlan } from "@/core/walk/walkPlan";
import { touchOf } from "./touch";

const replace: StepBody = { kind: "replace-drive", drive: "d1", by: "x1", how: "pulled" };
const walked = (toBuy: boolean, ...steps: StepBody[]) => {
  const plan = boxWith("classic-raid", "raid5", [4, 4, 4], [4]);
  const drives = plan.drives.map((drive) => (toBuy && drive.id === "x1" ? { ...drive, toBuy } : drive));
  return walkPlan(numbered({ ...plan, drives }, steps));
};

test("a replacement reads the members that stay, erases the drive that comes, and leaves others alone", () => {
  const walk = walked(false, replace);
  expect(touchOf(walk, 1, "d2", "TB")).toEqual({ word: "read", title: expect.stringMatching(/^4\.00\sTB read$/) });
  expect(touchOf(walk, 1, "x1", "TB")).toEqual({ word: "erased", title: expect.stringMatching(/^4\.00\sTB written$/) });
  expect(touchOf(walk, 1, "d1", "TB")).toBeNull();
  expect(touchOf(walk, 0, "d2", "TB")).toBeNull();
});

test("what is only being bought has nothing that could be erased: it is written", () => {
  expect(touchOf(walked(true, replace), 1, "x1", "TB")?.word).toBe("written");
});

test("a widening rewrites its members, and a step that is not carried out touches nothing", () => {
  const widen: StepBody = { kind: "widen-group", group: "g1", drives: ["x1"] };
  const touch = touchOf(walked(false, widen), 1, "d1", "TB");
  expect(touch).toEqual({ word: "rewritten", title: expect.stringMatching(/\sTB read, .*\sTB written$/) });
  expect(touchOf(walked(false, { ...widen, drives: ["d2"] }), 1, "d1", "TB")).toBeNull();
});
