import "fake-indexeddb/auto";
import fc from "fast-check";
import type { Plan } from "@/core/document/plan";
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
  type LoadedPlan,
  rawPlan,
  restorePlan,
} from "./planRepository";
import { keepDemoOnFirstVisit } from "./firstVisit";
import { keepPlan } from "./keepPlan";
import { PlanSession } from "./planSession";
import { addAct, followPractice, keepAhead, keepPractice } from "./practiceBoxes";

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
async function loaded(database: CortijoDatabase, id: string): Promise<LoadedPlan> {
  const read = await loadPlan(database, id);
  if (read.kind !== "there") throw new Error(`The plan is ${read.kind}.`);
  return read.loaded;
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
  expect((await loaded(open(name), id)).history.plan).toEqual(clinic);
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
        expect((await loaded(open(name), id)).history).toEqual(session.getState().history);
      },
    ),
    { numRuns: 25 },
  );
});

test("the end of an older notice leaves a newer one", async () => {
  const name = freshName();
  const session = await tab(name, await keepPlan(open(name), clinic));
  const noticed = () => session.getState().notice;
  session.say("First.");
  const first = noticed()?.id ?? 0;
  session.say("Second.");
  session.dismiss(first);
  expect(noticed()?.text).toBe("Second.");
  session.dismiss(first + 1);
  expect(noticed()).toBeNull();
});

test("what is done while another place of the plan reads it again is not lost", async () => {
  const name = freshName();
  const id = await keepPlan(open(name), clinic);
  const session = await tab(name, id);
  session.do(rename("First"));
  await session.settled();
  // The place before is left, and the next one opens the same plan; what is pressed comes before or after it is read.
  for (const wait of [0, 1, 2, 4, 8]) {
    session.close();
    const opening = session.open();
    await new Promise((resolve) => setTimeout(resolve, wait));
    session.do(rename(`After ${wait} ms`));
    await opening;
    expect(planOf(session).name).toBe(`After ${wait} ms`);
    await session.settled();
    expect((await loaded(open(name), id)).history.plan.name).toBe(`After ${wait} ms`);
  }
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
    const kept = (await loaded(open(name), id)).history;
    expect(kept.plan).toMatchObject({ name: "Plan of B", pools: [{ name: "Pool of B" }], box: { name: "Box of B" } });
    expect(kept.entries).toHaveLength(4);
    await until(
      () =>
        JSON.stringify(planOf(a)) === JSON.stringify(kept.plan) &&
        JSON.stringify(planOf(b)) === JSON.stringify(kept.plan),
    );
  });

  test(
    "what no longer fits is said and changes nothing; an undo that was overtaken is not carried out on another's " +
      "command",
    async () => {
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
    },
  );
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
    await session.open(async () => clinic);
    session.do(rename("On this page"));
    expect(session.getState()).toMatchObject({
      status: "ready",
      keeping: "unkept",
      history: { plan: { name: "On this page" } },
    });
  });
});

describe("what is only on this page", () => {
  const full = () => Object.assign(new Error("QuotaExceededError"), { name: "QuotaExceededError" });
  async function openedPlan() {
    const name = freshName();
    const database = open(name);
    const id = await keepPlan(database, clinic);
    return { name, database, id, session: await tab(name, id) };
  }
  const stateOf = (session: PlanSession) => {
    const { keeping, gone, trouble } = session.getState();
    return [keeping, gone, trouble === null];
  };

  test("after a full disk it is saved on the next act, all of it, in its order", async () => {
    const { database, id } = await openedPlan();
    const session = new PlanSession(database, id, emptyPlan(""));
    opened.push(session);
    await session.open();
    let isFull = true;
    database.plans.hook("updating", () => {
      if (isFull) throw full();
    });
    session.do(rename("First"));
    await session.settled();
    session.do({ kind: "change-box", name: "Second" });
    await session.settled();
    expect(stateOf(session)).toEqual(["unkept", null, false]);
    isFull = false;
    session.do(rename("Third"));
    await session.settled();
    expect(stateOf(session)).toEqual(["kept", null, true]);
    const { history } = await loaded(database, id);
    expect(history).toEqual(session.getState().history);
    expect(history.entries.map(({ description }) => description)).toHaveLength(3);
  });

  test("after a full disk it is saved by itself", async () => {
    const { database, id } = await openedPlan();
    const session = new PlanSession(database, id, emptyPlan(""), 20);
    opened.push(session);
    await session.open();
    const hook = () => {
      database.plans.hook("updating").unsubscribe(hook);
      throw full();
    };
    database.plans.hook("updating", hook);
    session.do(rename("Kept later"));
    await session.settled();
    expect(stateOf(session)).toEqual(["unkept", null, false]);
    await until(() => session.getState().keeping === "kept");
    expect((await loaded(database, id)).history.plan.name).toBe("Kept later");
    expect(stateOf(session)).toEqual(["kept", null, true]);
  });

  test("a plan deleted in another tab is said to be gone at once, is never said to be saved, and comes back with all", async () => {
    const { database, id, session } = await openedPlan();
    await deletePlan(database, id);
    await until(() => session.getState().gone === "deleted");
    session.do(rename("Done meanwhile"));
    await session.settled();
    expect([...stateOf(session), session.hasUnsaved()]).toEqual(["unkept", "deleted", false, true]);
    await session.bringBack();
    expect([...stateOf(session), session.hasUnsaved()]).toEqual(["kept", null, true, false]);
    expect((await loaded(database, id)).history).toEqual(session.getState().history);
  });

  test("one that is brought back elsewhere takes what was done here meanwhile", async () => {
    const { database, id, session } = await openedPlan();
    await deletePlan(database, id);
    await until(() => session.getState().gone === "deleted");
    session.do(rename("Done meanwhile"));
    await restorePlan(database, id);
    await until(() => session.getState().keeping === "kept");
    expect((await loaded(database, id)).history.plan.name).toBe("Done meanwhile");
  });

  test("an act in the moment of a deletion is not written into the deleted plan", async () => {
    const { database, id, session } = await openedPlan();
    await database.plans.update(id, { deletedAt: 5 });
    session.do(rename("Too late"));
    await session.settled();
    expect(session.getState().keeping).toBe("unkept");
    expect((await database.plans.get(id))!.name).toBe(clinic.name);
  });

  test("site data that was cleared: said, kept on the page, saved anew with its history", async () => {
    const { database, id, session } = await openedPlan();
    session.do(rename("Before"));
    await session.settled();
    await Promise.all([database.plans.clear(), database.entries.clear()]);
    await until(() => session.getState().gone === "missing");
    await session.bringBack();
    session.undo();
    await session.settled();
    expect((await loaded(database, id)).history).toEqual(session.getState().history);
    expect(planOf(session).name).toBe(clinic.name);
  });
});

describe("what was kept and is damaged", () => {
  const damage = async (database: CortijoDatabase, id: string, document: unknown) =>
    database.plans.update(id, { document: document as Plan });

  test.each([
    ["nothing", null, "not-a-plan"],
    ["a field of the wrong kind", { ...clinic, drives: "none" }, "not-a-plan"],
    ["a drive in two places", { ...clinic, drives: [...clinic.drives, clinic.drives[0]] }, "impossible"],
    ["a newer version", { ...clinic, version: 2 }, "newer"],
  ])("%s is listed as such, can be exported and deleted, and harms no other", async (_, document, kind) => {
    const database = open(freshName());
    const [bad, good] = [await keepPlan(database, clinic), await keepPlan(database, { ...clinic, name: "Good" })];
    await damage(database, bad, document);
    expect(await loadPlan(database, bad)).toMatchObject({ kind: "damaged", damage: { kind } });
    const { plans } = await listPlans(database);
    expect(plans.map(({ id, damage: found }) => [id, found?.kind ?? null]).sort()).toEqual(
      [
        [bad, kind],
        [good, null],
      ].sort(),
    );
    expect(JSON.parse((await rawPlan(database, bad))!)).toEqual(document);
    expect(await duplicatePlan(database, bad)).toBeNull();
    await deletePlan(database, bad);
    expect((await listPlans(database)).plans.map(({ id }) => id)).toEqual([good]);
  });

  test("a history that is damaged is left out, and an undo that leads nowhere changes nothing", async () => {
    const own = open(freshName());
    const plan = await keepPlan(own, clinic);
    const session = new PlanSession(own, plan, emptyPlan(""));
    opened.push(session);
    await session.open();
    session.do(rename("Later"));
    await session.settled();
    await own.entries.update([plan, 0], { inverse: [{ op: "replace", path: ["drives"], value: 7 }] as never });
    const { history } = await loaded(own, plan);
    expect(undo(history)).toMatchObject({ ok: false, reason: expect.stringContaining("damaged") });
    await own.entries.update([plan, 0], { inverse: "nonsense" as never });
    expect((await loaded(own, plan)).history).toMatchObject({ entries: [], position: 0, plan: { name: "Later" } });
  });

  test("a command that would make what cannot be opened again is refused with the reason", async () => {
    const database = open(freshName());
    const session = new PlanSession(database, await keepPlan(database, clinic), emptyPlan(""));
    opened.push(session);
    await session.open();
    const { id: _id, serial: _serial, place: _place, ...drive } = clinic.drives[0]!;
    const huge = Array.from({ length: 9 }, () => ({ ...drive, bytes: 1e15 }));
    expect(session.do({ kind: "add-drives", drives: huge })).toMatch(/9 PB together/);
    expect(planOf(session)).toEqual(clinic);
  });
});

describe("the list of plans", () => {
  test("the demo is there on the first visit only", async () => {
    const database = open(freshName());
    const id = await keepDemoOnFirstVisit(database);
    expect((await loaded(database, id!)).history.plan).toEqual(clinic);
    await deletePlan(database, id!);
    expect(await keepDemoOnFirstVisit(database)).toBeNull();
    expect((await listPlans(database)).plans).toEqual([]);
  });

  test("deleted plans come back whole, and are forgotten after 30 days", async () => {
    const database = open(freshName());
    const id = await keepPlan(database, clinic, { now: 1 });
    const copy = (await duplicatePlan(database, id))!;
    await deletePlan(database, id, 1000);
    expect(await loadPlan(database, id)).toEqual({ kind: "deleted" });
    expect(await listPlans(database)).toMatchObject({
      plans: [{ id: copy, name: `${clinic.name} (copy)` }],
      deleted: [{ id }],
    });
    await restorePlan(database, id);
    expect((await loaded(database, id)).history.plan).toEqual(clinic);
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

describe("practice boxes", () => {
  test("one is kept beside its plan, followed, and forgotten with it; its clock never goes back", async () => {
    const database = open(freshName());
    const id = await keepPlan(database, clinic, { now: 5 });
    const told: (number | null)[] = [];
    const stop = followPractice(database, id, (kept) => void told.push(kept ? kept.acts.length : null));
    await keepPractice(database, id, clinic, 5);
    expect((await database.practices.get(id))?.plan.steps).toEqual([]);
    const [fire] = [{ at: 2, befalls: { kind: "fire" as const } }];
    await Promise.all([
      addAct(database, id, fire, { plan: clinic, ahead: 10 }),
      keepAhead(database, id, 900),
      addAct(database, id, fire, { plan: clinic, ahead: 20 }),
      keepAhead(database, id, 30),
    ]);
    expect(await database.practices.get(id)).toMatchObject({ ahead: 900, acts: [fire, fire] });
    // Of a plan without one nothing is kept.
    await addAct(database, "other", fire, { plan: clinic, ahead: 1 });
    expect(await database.practices.count()).toBe(1);
    await deletePlan(database, id, 10);
    await forgetOldDeletions(database, 11 + KEPT_AFTER_DELETION_MS);
    expect(await database.practices.count()).toBe(0);
    await new Promise((resolve) => setTimeout(resolve, 50));
    stop();
    expect([told.includes(2), told.at(-1)]).toEqual([true, null]);
  });
});
