import "../commands/recordingCommands";
import { growingClinic } from "../document/samples/growingClinic";
import type { Plan } from "../document/plan";
import { applyCommand } from "../commands/applyCommand";
import type { Command } from "../document/command";
import { HANDS } from "../calendar/planCalendar";
import { walkPlan } from "../walk/walkPlan";
import { schedulePlan } from "./schedulePlan";

const HOUR = 3_600_000;
const calendar = {
  id: "c1",
  start: "2026-11-23",
  timeZone: "Europe/Lisbon",
  deliveryDays: 0,
  hands: HANDS.evenings.windows,
  excluded: [],
};

const does = (plan: Plan, command: Command): Plan => {
  const result = applyCommand(plan, command);
  if (!result.ok) throw new Error(result.reason);
  return result.plan;
};

const plan: Plan = { ...growingClinic, calendar };
const [first] = plan.steps.map(({ id }) => id) as [string];
const datesOf = (of: Plan, pace: "low" | "expected" | "high" = "expected") =>
  schedulePlan(walkPlan(of), calendar, pace);
const begun = Date.parse("2026-12-05T18:30Z");

test("what is under way stands where it was begun, ends by its last reading, and the next begins after it", () => {
  const under = does(plan, { kind: "start-step", step: first, at: "2026-12-05T18:30Z" });
  const [running, next] = datesOf(under).steps;
  expect(running).toMatchObject({ step: first, start: begun });
  const lasts = (running!.end - begun) / HOUR;
  const read = does(under, {
    kind: "take-progress",
    step: first,
    at: new Date(begun + lasts * HOUR).toISOString(),
    share: 0.5,
  });
  const slow = datesOf(read);
  // Half of it took as long as the whole should have.
  expect((slow.steps[0]!.end - begun) / HOUR).toBeGreaterThan(1.8 * lasts);
  expect(slow.steps[1]!.start).toBeGreaterThanOrEqual(slow.steps[0]!.end);
  expect(next!.start).toBeGreaterThanOrEqual(running!.end);
  expect(datesOf(read, "high").steps[0]!.end).toBeGreaterThan(slow.steps[0]!.end);
});

test("what has been carried out is past: the rest begins after it, at the next hour that is free", () => {
  const done = does(does(plan, { kind: "start-step", step: first, at: "2026-12-05T18:30Z" }), {
    kind: "end-step",
    step: first,
    at: "2026-12-06T09:15Z",
  });
  const [next] = datesOf(done).steps;
  expect(next!.step).toBe(plan.steps[1]!.id);
  expect(next!.start).toBeGreaterThanOrEqual(Date.parse("2026-12-06T09:15Z"));
  expect(next!.start).toBeLessThan(Date.parse("2026-12-08T00:00Z"));
  expect(datesOf(plan).steps[1]!.start).not.toBe(next!.start);
});
