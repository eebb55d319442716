import "../commands/recordingCommands";
import fc from "fast-check";
import { applyCommand } from "../commands/applyCommand";
import type { Command } from "../document/command";
import { growingClinic } from "../document/samples/growingClinic";
import type { Plan } from "../document/plan";
import { checkPlan } from "../document/readPlan";
import { writePlan } from "../document/writePlan";
import { ownTimesOf } from "../logbook/ownTimes";
import { likelySeed, likelyWalk } from "../testing/likelyPlan";
import { walkPlan } from "../walk/walkPlan";
import { currentSteps, stepNow } from "./stepNow";

const DAY = Date.parse("2026-11-02T08:00Z");
const at = (hours: number): string => new Date(DAY + Math.round(hours * 3600) * 1000).toISOString();

function does(plan: Plan, command: Command): Plan {
  const result = applyCommand(plan, command);
  if (!result.ok) throw new Error(`${command.kind}: ${result.reason}`);
  return result.plan;
}

/** Why a command is refused. */
const refused = (plan: Plan, command: Command) => {
  const result = applyCommand(plan, command);
  return result.ok ? null : result.reason;
};

/** The plan with all steps that can be done carried out, one after the other, and the others skipped. */
function carriedOut(plan: Plan, hoursOf: (expected: number) => number = (expected) => expected): Plan {
  let [is, clock] = [plan, 0];
  while (is.steps.some((step) => !step.disabled)) {
    const [step] = currentSteps(is);
    const now = stepNow(is, step!.id, "TB");
    if (!now?.walked.done) {
      is = does(is, { kind: "remove-steps", steps: [step!.id] });
      continue;
    }
    is = does(is, { kind: "start-step", step: step!.id, at: at(clock) });
    clock += hoursOf(now.walked.cost.boxWork?.byRates ?? 0.1);
    is = does(is, { kind: "end-step", step: step!.id, at: at(clock) });
  }
  return is;
}

/** What of a plan is the box: drives, pools and what is stored. */
const boxOf = ({ box, drives, pools, dataSets, backups }: Plan) => ({ box, drives, pools, dataSets, backups });

test("a plan carried out step by step ends where it was predicted to end, and nothing is left to do", () => {
  fc.assert(
    fc.property(likelySeed, ([seed, steps]) => {
      const walk = likelyWalk(seed, steps);
      // A wait between two steps outdates a backup; that is about dates, which carrying out has of its own.
      fc.pre(walk.plan.steps.every((step) => step.notBefore === undefined && !step.together));
      const ended = carriedOut(walk.plan);
      expect(boxOf(ended)).toEqual(boxOf(walk.moments.at(-1)!.state.plan));
      const done = walk.moments.flatMap(({ walked }) => (walked?.done ? [walked] : []));
      expect(ended.history?.map(({ step }) => step) ?? []).toEqual(done.map(({ step }) => step.id));
      // What each did and needed was told from the plan as it was then, as the whole plan had told it before.
      for (const [i, entry] of (ended.history ?? []).entries())
        expect(entry.byRates ?? 0).toBeCloseTo(done[i]!.cost.boxWork?.byRates ?? 0, 2);
      expect(ended.underWay).toBeUndefined();
      const read = checkPlan(JSON.parse(writePlan(ended)));
      expect(read).toMatchObject({ ok: true });
      if (read.ok) expect(read.plan).toEqual(ended);
    }),
    { numRuns: 60 },
  );
});

test("the rest is predicted by the times that came: a box half as fast again takes half as long again", () => {
  const plan = growingClinic;
  const before = walkPlan(plan);
  const half = plan.steps.slice(0, Math.ceil(plan.steps.length / 2)).map(({ id }) => id);
  const later = plan.steps.filter(({ id }) => !half.includes(id)).map(({ id }) => id);
  const ended = carriedOut({ ...plan, steps: plan.steps.slice(0, half.length) }, (expected) => expected * 1.5);
  const rest = walkPlan({ ...ended, steps: plan.steps.slice(half.length) });
  for (const id of later) {
    const hoursIn = (walk: typeof rest) => walk.moments.find(({ after }) => after === id)?.walked?.cost.boxWork;
    const [was, is] = [hoursIn(before), hoursIn(rest)];
    if (!was || !is) continue;
    expect(is.byRates).toBeCloseTo(was.byRates, 6);
    expect(is.hours.expected / is.byRates).toBeGreaterThan(1.3);
    expect(is.hours.expected / is.byRates).toBeLessThan(1.5);
  }
  expect(later.length).toBeGreaterThan(0);
  expect(ownTimesOf(ended).times.length).toBeGreaterThan(1);
});

describe("what is recorded", () => {
  const plan = growingClinic;
  const [first, second] = plan.steps.map(({ id }) => id) as [string, string];
  const begun = does(plan, { kind: "start-step", step: first, at: at(0) });

  test("progress and corrected times, which stay in their order", () => {
    const read = does(begun, { kind: "take-progress", step: first, at: at(3), share: 0.4 });
    const more = does(read, { kind: "take-progress", step: first, at: at(1), share: 0.1 });
    expect(more.underWay?.[0]?.readings?.map(({ share }) => share)).toEqual([0.1, 0.4]);
    expect(refused(more, { kind: "take-progress", step: first, at: at(-1), share: 0.1 })).toMatch(/before the step/);
    expect(refused(more, { kind: "correct-record", record: first, changes: { start: at(2) } })).toMatch(/read before/);
    const earlier = does(more, { kind: "correct-record", record: first, changes: { start: at(-2) } });
    const ended = does(earlier, { kind: "end-step", step: first, at: at(9) });
    expect(ended.history).toMatchObject([{ id: "h1", step: first, start: at(-2), end: at(9), outcome: "done" }]);
    const corrected = does(ended, { kind: "correct-record", record: "h1", changes: { end: at(8), leftOut: true } });
    expect(corrected.history).toMatchObject([{ start: at(-2), end: at(8), leftOut: true }]);
    expect(refused(ended, { kind: "correct-record", record: "h1", changes: { end: at(-3) } })).toMatch(/end before/);
    expect(refused(earlier, { kind: "end-step", step: first, at: at(-3) })).toMatch(/before the step was begun/);
  });

  test("a later step waits for those before it, unless they are under way or skipped", () => {
    expect(refused(plan, { kind: "start-step", step: second, at: at(0) })).toMatch(/comes before/);
    expect(refused(begun, { kind: "start-step", step: first, at: at(0) })).toMatch(/already/);
    const skipped = does(plan, { kind: "edit-step", step: first, changes: { disabled: true } });
    expect(does(skipped, { kind: "start-step", step: second, at: at(0) }).underWay).toMatchObject([{ step: second }]);
  });

  test("a step that stops stays in the plan, and its time says nothing of the box", () => {
    const stopped = does(begun, { kind: "stop-step", step: first, at: at(2), why: "refused" });
    expect(stopped.steps).toEqual(plan.steps);
    expect(stopped.drives).toEqual(plan.drives);
    expect(stopped.history).toMatchObject([{ step: first, outcome: "stopped", why: "refused", end: at(2) }]);
    expect(stopped.underWay).toBeUndefined();
    expect(ownTimesOf(stopped).times).toEqual([]);
  });

  test("a drive that fails is in the log; what was begun and is taken out of the plan is not forgotten", () => {
    const failed = does(begun, { kind: "set-drive-state", drives: ["d1"], state: "failed", since: at(1) });
    expect(failed.log).toMatchObject([
      { id: "l1", what: "failure", start: at(1), text: expect.stringMatching(/bay 1/) },
    ]);
    expect(failed.underWay).toEqual(begun.underWay);
    const out = does(begun, { kind: "remove-steps", steps: [first] });
    expect(out.underWay).toBeUndefined();
    expect(out.history).toMatchObject([{ step: first, outcome: "stopped", start: at(0) }]);
  });

  test("the id of a step that is past is not given again", () => {
    const last = plan.steps.at(-1)!;
    const done = does({ ...plan, steps: [last] }, { kind: "end-step", step: last.id, at: at(1) });
    const more = does(done, { kind: "insert-steps", steps: [{ kind: "verify", pool: "p1" }] });
    expect(more.steps[0]!.id).not.toBe(last.id);
  });

  test("by undoing the recording is as if it had not been", () => {
    const result = applyCommand(begun, { kind: "end-step", step: first, at: at(5) });
    if (!result.ok) throw new Error(result.reason);
    expect(result.plan.steps).toHaveLength(plan.steps.length - 1);
    expect(
      does(does(plan, { kind: "start-step", step: first, at: at(0) }), { kind: "rename-plan", name: "x" }).name,
    ).toBe("x");
  });
});

test("history and log at their most keep the plan file under 1 MiB, and one more is refused with the way out", () => {
  const plan = growingClinic;
  const entry = { what: "check" as const, text: "Check (scrub)", start: at(0), end: at(9), byRates: 9.31 };
  const full = does(plan, { kind: "add-log-entries", entries: Array.from({ length: 5000 }, () => entry) });
  expect(writePlan(full).length).toBeLessThan(2 ** 20);
  expect(checkPlan(JSON.parse(writePlan(full)))).toMatchObject({ ok: true });
  const reason = refused(full, { kind: "add-log-entries", entries: [entry] });
  expect(reason).toMatch(/CSV/);
  const long = { ...entry, text: "x".repeat(200) };
  expect(refused(plan, { kind: "add-log-entries", entries: Array.from({ length: 3000 }, () => long) })).toBe(reason);
  // What is taken out is room for more.
  const ids = full.log!.slice(0, 1000).map(({ id }) => id);
  const less = does(full, { kind: "remove-records", records: ids });
  expect(does(less, { kind: "add-log-entries", entries: [entry] }).log?.at(-1)?.id).toBe("l5001");
});

test("what the box shows to be done is recorded, and its time does not count, since nobody saw its end", () => {
  const plan = growingClinic;
  const [one, two] = plan.steps.map(({ id }) => id) as [string, string];
  const begun = does(plan, { kind: "start-step", step: one, at: at(0) });
  const reading = { at: at(40), drives: [], arrays: [] };
  const { box, drives, pools } = walkPlan(plan).moments[2]!.state.plan;
  const as = { box, drives, pools, steps: plan.steps.slice(2) };
  const read = does(begun, { kind: "take-reading", reading, as, done: [one, two] });
  expect(read.history).toMatchObject([
    { step: one, start: at(0), end: at(40), outcome: "done", leftOut: true },
    { step: two, start: at(40), end: at(40), outcome: "done", leftOut: true },
  ]);
  expect(read.underWay).toBeUndefined();
  expect(read.steps).toEqual(plan.steps.slice(2));
  expect(ownTimesOf(read).times).toEqual([]);
});

test("a backup that was carried out counts for what follows, until it is too old", () => {
  const backup = growingClinic.steps.find(({ kind }) => kind === "back-up")!;
  const pool = growingClinic.pools[0]!.id;
  const risky = {
    id: "s99",
    kind: "rebuild-from-backup" as const,
    pool,
    layout: "raid6" as const,
    drives: ["d1", "d2", "d3", "d4"],
  };
  const plan: Plan = { ...growingClinic, steps: [backup, risky] };
  const codesOn = (of: Plan, day: string) =>
    walkPlan(of, "TB", undefined, day).moments.flatMap(({ walked }) => walked?.findings.map(({ code }) => code) ?? []);
  const done = does(plan, { kind: "end-step", step: backup.id, at: at(0) });
  expect(done.doneBefore?.backedUp).toMatchObject([{ pool, at: at(0) }]);
  const without = codesOn({ ...plan, steps: [risky] }, "2026-11-10");
  const soon = codesOn(done, "2026-11-10");
  expect(without.filter((code) => !soon.includes(code))).toHaveLength(1);
  expect(codesOn(done, "2027-02-10")).toEqual(without);
});
