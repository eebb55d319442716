import fc from "fast-check";
import type { Plan, Step } from "../document/plan";
import { practiceBox } from "../document/samples/practiceBox";
import { testDrive } from "../testing/arbitraries";
import { boxWith } from "../testing/boxWith";
import { pull, seat } from "./hands";
import { Practice } from "./practice";
import { doAct, replay, withDrives, type PracticeAct, type PracticeLog } from "./practiceLog";
import { truthOf } from "./truth";

const steps = practiceBox.steps as Step[];
const drives = practiceBox.drives.map(({ id }) => id);

/** Anything that can be done on the practice box among the samples. */
const anyDeed = fc.oneof(
  fc.constantFrom(...steps).map((step) => ({ begins: step, label: step.kind })),
  fc.constantFrom(...drives).map((drive) => ({ pulls: drive })),
  fc.constantFrom(...drives).map((drive) => ({ seats: drive })),
  fc.constantFrom(...drives).map((drive) => ({ befalls: { kind: "drive-dies" as const, drive } })),
  fc.constant({ befalls: { kind: "power-cut" as const } }),
);

/** All that can be seen of a practice. */
const seen = (practice: Practice) => ({
  said: [...practice.said],
  truth: truthOf(practice),
  drives: practice.box.drives.map(({ id, bay, state, cells }) => [
    id,
    bay,
    state,
    cells.reduce((sum, byte, at) => (sum * 31 + byte + at) % 1_000_003, 0),
  ]),
  running: practice.running.map(({ step, phase, passed }) => [step.id, phase, Math.round(passed)]),
});

test("a log played up to any hour is the box as it was then, and its last hour goes on where it was left", () => {
  fc.assert(
    fc.property(fc.array(fc.tuple(anyDeed, fc.double({ min: 0, max: 14, noNaN: true })), { maxLength: 7 }), (deeds) => {
      const live = Practice.of(practiceBox, { blocks: 1024, seed: 1 });
      const acts: PracticeAct[] = [];
      const then: [number, ReturnType<typeof seen>][] = [];
      for (const [deed, hours] of deeds) {
        const act = { at: live.box.hours, ...deed } as PracticeAct;
        doAct(live, act);
        acts.push(act);
        live.pass(hours);
        then.push([live.box.hours, seen(live)]);
      }
      const log: PracticeLog = { plan: practiceBox, seed: 1, acts };
      for (const [i, [hours, was]] of then.entries())
        expect(seen(replay({ ...log, acts: acts.slice(0, i + 1) }, hours))).toEqual(was);
    }),
    { numRuns: 25 },
  );
});

test("a drive that the plan gets later lies on the shelf of the box from the beginning, bought or not", () => {
  const log: PracticeLog = { plan: practiceBox, seed: 1, acts: [{ at: 1, pulls: "d1" }] };
  const fresh = testDrive("x9", 8e12, { place: { bay: 6 }, toBuy: true });
  const known = withDrives(log, [...practiceBox.drives, fresh]);
  expect(known.plan.drives.at(-1)).toMatchObject({ id: "x9", place: { shelf: true } });
  expect(known.plan.drives.at(-1)).not.toHaveProperty("toBuy");
  expect(withDrives(known, [fresh])).toBe(known);
  const at = (which: PracticeLog) => replay(which, 2).box.drives.find(({ id }) => id === "d1")?.state;
  expect([at(log), at(known)]).toEqual(["missing", "missing"]);
});

describe("hands at the box", () => {
  const plan: Plan = boxWith("linux-host", "raid5", [4, 4, 4], [4, 4], {}, 4);
  const stateOf = (practice: Practice, id: string) => {
    const drive = practice.box.drives.find((each) => each.id === id)!;
    return [drive.state, drive.bay];
  };

  test("a drive of the group that is pulled is missing, and one that is put back at once is as it was", () => {
    const practice = Practice.of(plan, { blocks: 64, seed: 1 });
    pull(practice, "d2");
    expect([stateOf(practice, "d2"), practice.said.at(-1)?.what]).toEqual([["missing", null], "not-there"]);
    expect(seat(practice, "d2")).toBe(true);
    expect([stateOf(practice, "d2"), practice.running]).toEqual([["works", 2], []]);
  });

  test("an idle drive goes in and out, into the lowest free bay, as long as there is one", () => {
    const practice = Practice.of(plan, { blocks: 64, seed: 1 });
    expect([seat(practice, "x1"), seat(practice, "x2"), seat(practice, "x1")]).toEqual([true, false, false]);
    expect(stateOf(practice, "x1")).toEqual(["works", 4]);
    pull(practice, "x1");
    expect([stateOf(practice, "x1"), practice.said]).toEqual([["works", null], []]);
  });

  test("a drive that has failed stays so when it is pulled, and is said to be out", () => {
    const practice = Practice.of(plan, { blocks: 64, seed: 1 });
    doAct(practice, { at: 0, befalls: { kind: "drive-dies", drive: "d1" } });
    pull(practice, "d1");
    expect(stateOf(practice, "d1")).toEqual(["failed", null]);
    expect(practice.said.map(({ what }) => what)).toEqual(["thrown-out", "not-there"]);
  });
});
