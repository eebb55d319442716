import { HANDS } from "../calendar/planCalendar";
import type { Plan, Step, StepBody } from "../document/plan";
import { clinic } from "../document/samples/clinic";
import { boughtFor } from "../steps/attention";
import { testDrive } from "../testing/arbitraries";
import { costsOf } from "../walk/costs";
import { walkPlan } from "../walk/walkPlan";
import { schedulePlan } from "./schedulePlan";

const calendar: Plan["calendar"] = {
  id: "c1",
  start: "2026-11-23",
  timeZone: "Europe/Lisbon",
  deliveryDays: 3,
  hands: HANDS["any-day"].windows,
  excluded: [],
};
const withNew: Plan = {
  ...clinic,
  box: { ...clinic.box, rules: { set: "linux-host" } },
  drives: [...clinic.drives, testDrive("n1", 12_000_138_625_024, { toBuy: true })],
  calendar,
};

// Whatever is done with a drive that is still to be bought waits for it, and is done at the box.
test.each<[string, StepBody]>([
  ["wiping it", { kind: "wipe-drive", drive: "n1" }],
  ["testing it", { kind: "test-drive", drive: "n1" }],
  ["making it a hot spare", { kind: "set-spare", pool: "p1", drive: "n1" }],
  ["putting it in the place of another", { kind: "replace-drive", drive: "d1", by: "n1", how: "pulled" }],
  ["widening a group by it", { kind: "widen-group", group: "g1", drives: ["n1"] }],
  ["mirroring on it", { kind: "mirror-drive", pool: "p9", group: "g9", name: "M", drive: "d5", by: "n1" }],
])("%s waits for the delivery", (_, body) => {
  const plan = { ...withNew, steps: [{ ...body, id: "s1" } as Step] };
  const walked = walkPlan(plan);
  expect(walked.moments[1]!.walked!.findings.filter((finding) => finding.severity === "block")).toEqual([]);
  const made = schedulePlan(walked, calendar!);
  expect(made.orders).toEqual([{ drives: ["n1"], orderOn: "2026-11-23", deliveredOn: "2026-11-26" }]);
  expect(new Date(made.steps[0]!.start).toISOString()).toBe("2026-11-26T18:00:00.000Z");
  expect(made.steps[0]).toMatchObject({ attention: "box", waitsFor: "delivery" });
  expect(boughtFor(plan.steps[0]!, plan)).toEqual(["n1"]);
  expect(costsOf(walked).purchases.map((each) => each.drive.id)).toEqual(["n1"]);
});

test("a drive that is owned and in its bay is wiped from the screen, and nothing is ordered", () => {
  const plan: Plan = {
    ...withNew,
    drives: withNew.drives.map((drive) => (drive.id === "d5" ? { ...drive, place: { bay: 5 } } : drive)),
    steps: [{ id: "s1", kind: "wipe-drive", drive: "d5" }],
  };
  const made = schedulePlan(walkPlan(plan), calendar!);
  expect(made.orders).toEqual([]);
  expect(made.steps[0]!.attention).toBe("screen");
});
