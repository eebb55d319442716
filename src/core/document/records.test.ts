import { readPlan } from "./readPlan";
import { growingClinic } from "./samples/growingClinic";
import type { Plan } from "./plan";
import { writePlan } from "./writePlan";

const done = {
  id: "h1",
  step: "s0",
  kind: "verify",
  label: "Check (scrub)",
  start: "2026-11-02T08:00Z",
  end: "2026-11-02T17:00Z",
  outcome: "done",
} as const;
const event = { id: "l1", what: "failure", text: "The drive in bay 3", start: "2026-11-02T08:00Z" } as const;
const [first] = growingClinic.steps.map(({ id }) => id) as [string];
const whole: Plan = {
  ...growingClinic,
  underWay: [{ step: first, start: "2026-11-03T08:00Z", readings: [{ at: "2026-11-03T09:00Z", share: 0.2 }] }],
  doneBefore: { tested: ["d1"], backedUp: [{ pool: "p1", rate: 1e8, at: "2026-11-01T20:00Z" }] },
  ratesOnly: ["backup"],
  history: [done],
  log: [event],
};

test("a plan with records is read as it was written, each record a line of the file", () => {
  const text = writePlan(whole);
  expect(readPlan(text)).toEqual({ ok: true, plan: whole });
  expect(text).toContain(`\n    ${JSON.stringify(done)}\n`);
  expect(JSON.parse(writePlan({ ...whole, history: [], log: [] }))).toMatchObject({ history: [], log: [] });
});

test("a plan of before there were records is read as it is", () => {
  const { underWay: _u, doneBefore: _d, ratesOnly: _r, history: _h, log: _l, ...old } = whole;
  expect(readPlan(JSON.stringify(old))).toEqual({ ok: true, plan: old });
});

test.each<[string, Partial<Plan>, string]>([
  ["ends-before-it-begins", { history: [{ ...done, end: "2026-11-01T08:00Z" }] }, "/history/0"],
  ["ends-before-it-begins", { log: [{ ...event, end: "2026-11-01T08:00Z" }] }, "/log/0"],
  [
    "ends-before-it-begins",
    { underWay: [{ step: first, start: "2026-11-03T08:00Z", readings: [{ at: "2026-11-02T08:00Z", share: 1 }] }] },
    "/underWay/0/readings/0",
  ],
  ["no-such-day", { history: [{ ...done, start: "2026-02-30T08:00Z" }] }, "/history/0"],
  ["no-such-step", { underWay: [{ step: "s99", start: "2026-11-03T08:00Z" }] }, "/underWay/0/step"],
  ["duplicate-id", { history: [done, done] }, "/history/1"],
  ["duplicate-id", { log: [event, event] }, "/log/1"],
  ["duplicate-id", { underWay: [1, 2].map(() => ({ step: first, start: "2026-11-03T08:00Z" })) }, "/underWay/1"],
  [
    "too-many-records",
    { log: Array.from({ length: 4000 }, (_, i) => ({ ...event, id: `l${i}`, text: "x".repeat(200) })) },
    "/history",
  ],
])("%s is refused, and told where", (code, changes, pointer) => {
  const result = readPlan(JSON.stringify({ ...whole, ...changes }));
  expect(result).toMatchObject({ ok: false, problems: [{ code, pointer }] });
});
