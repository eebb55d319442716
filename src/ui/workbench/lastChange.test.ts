import { numbered } from "@/core/testing/anySteps";
import { boxWith } from "@/core/testing/boxWith";
import { walkPlan } from "@/core/walk/walkPlan";
import { perform, startHistory, undo } from "@/store/history";
import { lastChangeOf } from "./lastChange";

const plan = numbered(boxWith("classic-raid", "raid5", [4, 4, 4], [4]), [
  { kind: "widen-group", group: "g1", drives: ["x1"] },
]);

test("now, the last change is measured against the plan before it; later, the moment against now", () => {
  const begun = startHistory(plan);
  expect(lastChangeOf(begun, walkPlan(plan), 0)).toBeNull();
  const added = perform(begun, { kind: "add-to-group", group: "g1", drives: ["x1"] }, 0);
  if (!added.ok) throw new Error(added.reason);
  const walked = walkPlan(added.history.plan);
  const change = lastChangeOf(added.history, walked, 0);
  expect(change).toMatchObject({ since: null, description: expect.stringMatching(/\w/) });
  expect(change!.bytes / 1e12).toBeCloseTo(4, 1);
  expect(lastChangeOf(begun, walkPlan(plan), 1)).toEqual({ description: "now", since: "now", bytes: change!.bytes });
  const undone = undo(added.history);
  expect(undone.ok && lastChangeOf(undone.history, walkPlan(plan), 0)).toBeNull();
});
