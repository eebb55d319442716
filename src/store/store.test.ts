import "fake-indexeddb/auto";
import fc from "fast-check";
import { emptyPlan } from "@/core/document/emptyPlan";
import { clinic } from "@/core/document/samples/clinic";
import { anyCommand } from "@/core/testing/anyPlan";
import { createDatabase, type CortijoDatabase } from "./database";
import { KEPT_ENTRIES, perform, redo, startHistory, undo, type History } from "./history";
import {
  deletePlan,
  duplicatePlan,
  forgetOldDeletions,
  KEPT_AFTER_DELETION_MS,
  listPlans,
  loadPlan,
  restorePlan,
} from "./planRepository";
import { keepDemoOnFirstVisit } from "./firstVisit";
import { keepPlan } from "./keepPlan";
import { PlanSession } from "./planSession";

let count = 0;
const opened: { close(): void }[] = [];
const freshName = () => `test-${(count += 1)}`;
function open(name: string): CortijoDatabase {
  const database = createDatabase(name);
  opened.push(database);
  return database;
}
async function tab(name: string, id: string): Promise<PlanSession> {
  const session = new PlanSession(open(name), id, emptyPlan(""));
  opened.push(session);
  await session.open();
  return session;
}
const planOf = (session: PlanSession) => session.getState().history.plan;
const rename = (name: string) => ({ kind: "rename-plan", name }) as const;
async function until(condition: () => boolean): Promise<void> {
  for (let i = 0; i < 200 && !condition(); i += 1) await new Promise((resolve) => setTimeout(resolve, 5));
  expect(condition()).toBe(true);
}
afterEach(() =>
  opened
    .splice(0)
    .reverse()
    .forEach((each) => each.close()),
);

test("every command is kept as it happens; undo and redo go on after a reload", async () => {
  const name = freshName();
  const id = await keepPlan(open(name), clinic);
  const first = await tab(name, id);
  for (let i = 1; i <= 210; i += 1) first.do(rename(`Plan ${i}`));
  first.undo();
  await first.settled();
  expect(first.getState().keeping).toBe("kept");

  const again = await tab(name, id);
  expect(planOf(again).name).toBe("Plan 209");
  again.redo();
  expect(planOf(again).name).toBe("Plan 210");
  for (let i = 0; i < 210; i += 1) again.undo();
  expect(planOf(again)).toEqual(clinic);
  await again.settled();
  expect((await loadPlan(open(name), id))!.history.plan).toEqual(clinic);
});

test("for any commands, what is loaded again equals what was on the page, history included", async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.array(fc.oneof(anyCommand, fc.constant("undo" as const), fc.constant("redo" as const)), { maxLength: 25 }),
      async (acts) => {
        const name = freshName();
        const id = await keepPlan(open(name), clinic);
        const session = await tab(name, id);
        for (const act of acts) {
          if (act === "undo") session.undo();
          else if (act === "redo") session.redo();
          else session.do(act);
        }
        await session.settled();
        expect((await loadPlan(open(name), id))!.history).toEqual(session.getState().history);
      },
    ),
    { numRuns: 25 },
  );
});

describe("two tabs", () => {
  test("one sees what the other does, and says so", async () => {
    const name = freshName();
    const id = await keepPlan(open(name), clinic);
    const [a, b] = [await tab(name, id), await tab(name, id)];
    a.do(rename("From A"));
    await until(() => planOf(b).name === "From A");
    expect(b.getState().notice?.text).toMatch(/another tab.*renamed the plan/);
    b.undo();
    await until(() => planOf(a).name === clinic.name);
  });

  test("commands done at the same moment are both in the plan, in both tabs, and the later wins where they clash", async () => {
    const name = freshName();
    const id = await keepPlan(open(name), clinic);
    const [a, b] = [await tab(name, id), await tab(name, id)];
    a.do({ kind: "rename-pool", pool: "p1", name: "Pool of A" });
    b.do(rename("Plan of B"));
    b.do({ kind: "rename-pool", pool: "p1", name: "Pool of B" });
    b.do({ kind: "change-box", name: "Box of B" });
    await Promise.all([a.settled(), b.settled()]);
    const kept = (await loadPlan(open(name), id))!.history;
    expect(kept.plan).toMatchObject({ name: "Plan of B", pools: [{ name: "Pool of B" }], box: { name: "Box of B" } });
    expect(kept.entries).toHaveLength(4);
    await until(
      () =>
        JSON.stringify(planOf(a)) === JSON.stringify(kept.plan) &&
        JSON.stringify(planOf(b)) === JSON.stringify(kept.plan),
    );
  });

  test("what no longer fits is said and changes nothing; an undo that was overtaken is not carried out on another's command", async () => {
    const name = freshName();
    const id = await keepPlan(open(name), clinic);
    const [a, b] = [await tab(name, id), await tab(name, id)];
    a.do({ kind: "remove-drives", drives: ["d5"] });
    b.do({ kind: "move-drive", drive: "d5", to: { bay: 5 } });
    await Promise.all([a.settled(), b.settled()]);
    expect(b.getState().notice).toMatchObject({
      kind: "problem",
      text: expect.stringMatching(/another tab.*no longer/),
    });
    expect(planOf(b).drives.map((drive) => drive.id)).not.toContain("d5");

    await until(() => JSON.stringify(planOf(a)) === JSON.stringify(planOf(b)));
    a.do(rename("Newer"));
    b.undo();
    await Promise.all([a.settled(), b.settled()]);
    expect(b.getState().notice?.text).toMatch(/look at the plan and undo again/);
    expect(planOf(b).name).toBe("Newer");
    expect(planOf(b).drives.map((drive) => drive.id)).not.toContain("d5");
  });
});

describe("when the database refuses", () => {
  test.each([
    ["full", Object.assign(new Error("QuotaExceededError"), { name: "QuotaExceededError" }), /storage is full/],
    ["blocked", Object.assign(new Error("denied"), { name: "SecurityError" }), /does not let Cortijo keep data/],
  ])("%s: the user is told, and the page goes on with nothing lost", async (_, error, words) => {
    const name = freshName();
    const database = open(name);
    const session = new PlanSession(database, await keepPlan(database, clinic), emptyPlan(""));
    opened.push(session);
    await session.open();
    database.plans.hook("updating", () => {
      throw error;
    });
    session.do(rename("Unkept"));
    await session.settled();
    session.do({ kind: "remove-drives", drives: ["d5"] });
    session.undo();
    expect(session.getState()).toMatchObject({ keeping: "unkept", trouble: expect.stringMatching(words) });
    expect(planOf(session)).toEqual({ ...clinic, name: "Unkept" });
  });

  test("a database that cannot even be opened leaves a plan to work on", async () => {
    const database = open(freshName());
    jest.spyOn(database, "transaction").mockRejectedValue(Object.assign(new Error("x"), { name: "SecurityError" }));
    const session = new PlanSession(database, "any", emptyPlan(""));
    await session.open(clinic);
    session.do(rename("On this page"));
    expect(session.getState()).toMatchObject({
      status: "ready",
      keeping: "unkept",
      history: { plan: { name: "On this page" } },
    });
  });
});

describe("the list of plans", () => {
  test("the demo is there on the first visit only", async () => {
    const database = open(freshName());
    const id = await keepDemoOnFirstVisit(database);
    expect((await loadPlan(database, id!))!.history.plan).toEqual(clinic);
    await deletePlan(database, id!);
    expect(await keepDemoOnFirstVisit(database)).toBeNull();
    expect((await listPlans(database)).plans).toEqual([]);
  });

  test("deleted plans come back whole, and are forgotten after 30 days", async () => {
    const database = open(freshName());
    const id = await keepPlan(database, clinic, 1);
    const copy = (await duplicatePlan(database, id))!;
    await deletePlan(database, id, 1000);
    expect(await loadPlan(database, id)).toBeNull();
    expect(await listPlans(database)).toMatchObject({
      plans: [{ id: copy, name: `${clinic.name} (copy)` }],
      deleted: [{ id }],
    });
    await restorePlan(database, id);
    expect((await loadPlan(database, id))!.history.plan).toEqual(clinic);
    await deletePlan(database, id, 1000);
    await forgetOldDeletions(database, 900 + KEPT_AFTER_DELETION_MS);
    expect((await listPlans(database)).deleted).toHaveLength(1);
    await forgetOldDeletions(database, 1100 + KEPT_AFTER_DELETION_MS);
    expect((await listPlans(database)).deleted).toHaveLength(0);
  });
});

test("a very long history forgets its oldest commands, never the newest", () => {
  let history: History = startHistory(clinic);
  for (let i = 0; i < KEPT_ENTRIES + 150; i += 1) {
    const result = perform(history, rename(`${i}`), i);
    if (result.ok) history = result.history;
  }
  expect(history.entries.length).toBeGreaterThanOrEqual(KEPT_ENTRIES);
  const back = undo(history);
  expect(back.ok && back.history.plan.name).toBe(`${KEPT_ENTRIES + 148}`);
  const there = back.ok ? redo(back.history) : back;
  expect(there.ok && there.history.plan).toEqual(history.plan);
});
