import fc from "fast-check";
import { applyPatches } from "immer";
import { driveInBay } from "../box/bays";
import { groupOfDrive } from "../box/members";
import type { Command } from "../document/command";
import { type Plan } from "../document/plan";
import { checkPlan } from "../document/readPlan";
import { clinic } from "../document/samples/clinic";
import { USABLE_CAUSES } from "../ledger/ledger";
import { predict } from "../prediction/predict";
import { anyCommand, anyPlan } from "../testing/anyPlan";
import { applyCommand } from "./applyCommand";
import { describeCommand } from "./describeCommand";

const after = (plan: Plan, ...commands: Command[]): Plan =>
  commands.reduce((current, command) => {
    const result = applyCommand(current, command);
    if (!result.ok) throw new Error(result.reason);
    return result.plan;
  }, plan);
const reason = (plan: Plan, command: Command) => {
  const result = applyCommand(plan, command);
  return result.ok ? null : result.reason;
};

describe("laws", () => {
  test("any sequence of commands, undone, gives the first plan; redone, the last", () => {
    fc.assert(
      fc.property(fc.array(anyCommand, { minLength: 1, maxLength: 30 }), anyPlan, (commands, first) => {
        const done = [];
        let plan = first;
        for (const command of commands) {
          const result = applyCommand(plan, command);
          if (!result.ok) continue;
          done.push(result);
          plan = result.plan;
        }
        const undone = done.reduceRight<Plan>((current, { inverse }) => applyPatches(current, inverse), plan);
        expect(undone).toEqual(first);
        expect(done.reduce<Plan>((current, { patches }) => applyPatches(current, patches), undone)).toEqual(plan);
      }),
    );
  });

  test("whatever is done, the plan stays a valid document that can be predicted, and every byte is accounted for", () => {
    fc.assert(
      fc.property(anyPlan, (plan) => {
        expect(checkPlan(structuredClone(plan))).toEqual({ ok: true, plan });
        for (const pool of predict(plan).pools) {
          const own = plan.pools.find((each) => each.id === pool.id)!;
          const members = new Set([
            ...own.groups.flatMap((group) => [...group.drives, ...(group.spares ?? [])]),
            ...own.spares,
          ]);
          const bytes = plan.drives
            .filter((drive) => members.has(drive.id))
            .reduce((sum, drive) => sum + drive.bytes, 0);
          expect(pool.ledger.reduce((sum, entry) => sum + entry.bytes, 0)).toBe(bytes);
          expect(
            pool.ledger.filter((entry) => USABLE_CAUSES.has(entry.cause)).reduce((sum, entry) => sum + entry.bytes, 0),
          ).toBe(pool.usableBytes);
        }
      }),
      { numRuns: 300 },
    );
  });

  test("a command never changes the plan it is given, and can be put in words", () => {
    fc.assert(
      fc.property(anyPlan, anyCommand, (plan, command) => {
        const before = structuredClone(plan);
        applyCommand(plan, command);
        expect(plan).toEqual(before);
        expect(describeCommand(plan, command)).toMatch(/^\w/);
      }),
    );
  });
});

test("the drive that is one too many is refused in words: how many there are, and how to go on", () => {
  const drives = Array.from({ length: 199 }, (_, i) => ({
    ...clinic.drives[0]!,
    id: `d${i + 1}`,
    serial: `S-${i}`,
    place: { shelf: true as const },
  }));
  const { id: _id, place: _place, serial: _serial, ...fresh } = clinic.drives[0]!;
  const most = after({ ...clinic, drives, pools: [], steps: [] }, { kind: "add-drives", drives: [fresh] });
  expect(most.drives).toHaveLength(200);
  const refused = applyCommand(most, { kind: "add-drives", drives: [fresh] });
  expect(refused).toEqual({
    ok: false,
    reason:
      "A plan holds at most 200 drives. This one has 200, so no more can come: remove drives that you no longer " +
      "have, or begin another plan for another box.",
  });
  const two = applyCommand({ ...most, drives }, { kind: "add-drives", drives: [fresh, fresh] });
  expect(two).toMatchObject({ reason: expect.stringContaining("so only 1 more can come") });
});

describe("moving drives", () => {
  test("a shelf drive put on an occupied bay takes the other's place in the group, and the other goes to the shelf", () => {
    const plan = after(clinic, { kind: "move-drive", drive: "d5", to: { bay: 2 } });
    expect(driveInBay(plan, 2)?.id).toBe("d5");
    expect(plan.pools[0]!.groups[0]!.drives).toEqual(["d1", "d5", "d3", "d4"]);
    expect(plan.drives.find((drive) => drive.id === "d2")!.place).toEqual({ shelf: true });
    expect(groupOfDrive(plan, "d2")).toBeNull();
  });
  test("two drives in bays change places and stay in their groups", () => {
    const plan = after(clinic, { kind: "move-drive", drive: "d1", to: { bay: 4 } });
    expect([driveInBay(plan, 1)?.id, driveInBay(plan, 4)?.id]).toEqual(["d4", "d1"]);
    expect(plan.pools).toEqual(clinic.pools);
  });
  test("a member put on the shelf leaves its group; the last one takes group and pool with it", () => {
    const plan = after(clinic, { kind: "move-drive", drive: "d4", to: { shelf: true } });
    expect(plan.pools[0]!.groups[0]!.drives).toEqual(["d1", "d2", "d3"]);
    const shelf = { shelf: true } as const;
    expect(
      after(plan, ...["d1", "d2", "d3"].map((drive): Command => ({ kind: "move-drive", drive, to: shelf }))).pools,
    ).toEqual([]);
  });
});

describe("groups", () => {
  test("drives from the shelf are seated in free bays, lowest first", () => {
    const plan = after(clinic, { kind: "add-to-group", group: "g1", drives: ["d5"] });
    expect(driveInBay(plan, 5)?.id).toBe("d5");
    expect(plan.pools[0]!.groups[0]!.drives).toEqual(["d1", "d2", "d3", "d4", "d5"]);
  });
  test("regrouping all drives of a pool keeps the pool", () => {
    const plan = after(clinic, { kind: "make-group", drives: ["d1", "d2", "d3", "d4"], layout: "raid6", pool: "p1" });
    expect(plan.pools).toMatchObject([{ id: "p1", name: "Images", groups: [{ layout: "raid6" }] }]);
  });
  test("a group that is described anew by hand forgets what its arrays kept; one that is not, does not", () => {
    const kept = { from: 0, offset: 0, chunk: 2 ** 20, used: 1e12 - (1e12 % 2 ** 20) };
    const [pool] = clinic.pools;
    const group = { ...pool!.groups[0]!, kept: [kept], reach: { d4: 8e12 }, filled: { d1: 5 } };
    const plan = { ...clinic, pools: [{ ...pool!, groups: [group] }] };
    const anew: Command[] = [
      { kind: "change-layout", group: "g1", layout: "raid5" },
      { kind: "add-to-group", group: "g1", drives: ["d5"] },
      { kind: "leave-group", drives: ["d2"] },
      { kind: "move-drive", drive: "d5", to: { bay: 2 } },
    ];
    const fields = (command: Command) => Object.keys(after(plan, command).pools[0]!.groups[0]!);
    for (const command of anew) expect(fields(command)).toEqual(["id", "layout", "drives"]);
    expect(fields({ kind: "rename-pool", pool: "p1", name: "X" })).toEqual(Object.keys(group));
  });
  test("drives leave their former groups for a new pool", () => {
    const plan = after(clinic, { kind: "make-group", drives: ["d3", "d4"], layout: "raid1", pool: null });
    expect(plan.pools.map((pool) => [pool.name, pool.groups.map((group) => group.drives)])).toEqual([
      ["Images", [["d1", "d2"]]],
      ["Pool 1", [["d3", "d4"]]],
    ]);
  });
});

test.each<[string, Command, RegExp]>([
  ["fewer bays than are filled", { kind: "change-box", bays: 3 }, /Bay 4 holds a drive/],
  ["25 bays", { kind: "change-box", bays: 25 }, /1 to 24/],
  ["a bay that does not exist", { kind: "move-drive", drive: "d1", to: { bay: 9 } }, /no bay 9/],
  ["a drive that is gone", { kind: "move-drive", drive: "d9", to: { shelf: true } }, /no longer/],
  [
    "a serial that is there already",
    { kind: "edit-drive", drive: "d1", changes: { serial: "tj4-0422" } },
    /has the serial/,
  ],
])("%s is refused with a reason", (_, command, message) => expect(reason(clinic, command)).toMatch(message));
