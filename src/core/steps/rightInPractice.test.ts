import type { Drive, Plan, StepBody } from "../document/plan";
import { numbered } from "../testing/anySteps";
import { boxWith, withDrive } from "../testing/boxWith";
import { create, level, pull, widen } from "../testing/stepsInShort";
import { walkPlan } from "../walk/walkPlan";

const walked = (plan: Plan, ...steps: StepBody[]) => walkPlan(numbered(plan, steps)).moments.at(-1)!.walked!;
const codes = (plan: Plan, ...steps: StepBody[]) => walked(plan, ...steps).findings.map(({ code }) => code);
const holding = (plan: Plan, id: string, changes: Partial<Drive> = { contents: { kind: "data" } }) =>
  withDrive(plan, id, changes);
const volumes = [{ id: "v1", name: "V", bytes: 3e12, fileSystem: "ext4" as const, usedBytes: 2e12 }];

describe("a drive taken out of parity drives", () => {
  const plan = boxWith("parity-drive", "parity-drive-1", [12, 4, 8, 8]);
  const remove = (drive: string): StepBody => ({ kind: "remove-drive", drive });

  test("the parity drive is no drive to take out", () =>
    expect(codes(plan, remove("d1"))).toContain("is-the-parity-drive"));

  test(
    "without a data drive the parity is worked out again: hours in which one more failure loses data, and no way " +
      "back",
    () => {
      const { cost, exposure, why } = walked(plan, remove("d3"));
      const height = Math.floor(8_001_563_222_016 / 2 ** 20) * 2 ** 20;
      // The 12 TB parity drive is written up to the 8 TB that are protected.
      expect(cost.work).toContainEqual({ drive: "d1", reads: 0, writes: height });
      expect(cost.hours.expected).toBeCloseTo(0.25 + height / (0.95 * 150e6) / 3600, 1);
      expect([cost.undoable, exposure[0]!.redundancy]).toEqual([false, 0]);
      expect(why).toMatch(/leaves with it; the parity is worked out again/);
    },
  );

  test("a separate drive takes what is on it along", () =>
    expect(walked(boxWith("classic-raid", "single", [4, 4]), remove("d1"))).toMatchObject({
      why: expect.stringMatching(/What is on it leaves with it/),
      cost: { undoable: false },
    }));
});

describe("what becomes of a pool while it is made anew from a backup", () => {
  const plan = {
    ...boxWith("classic-raid", "raid1", [4, 4], [4], { volumes }),
    backups: [
      {
        id: "b1",
        name: "Line",
        kind: "service" as const,
        place: "elsewhere" as const,
        everyDays: 7,
        keepsVersions: true,
        dataSets: [],
      },
    ],
  };
  const anew: StepBody = { kind: "rebuild-from-backup", pool: "p1", layout: "raid5", drives: ["d1", "d2", "x1"] };

  test("it comes back as slowly as it went, and is nowhere else meanwhile", () => {
    const steps: StepBody[] = [{ kind: "back-up", pool: "p1", to: "b1" }, anew];
    const [there, back] = [walked(plan, steps[0]!), walked(plan, ...steps)];
    expect(there.cost.hours.expected).toBeCloseTo(2e12 / 6.25e6 / 3600, 6);
    expect(back.cost.offline.expected).toBeCloseTo(there.cost.hours.expected, 6);
    expect(back.exposure).toEqual([{ pool: "p1", redundancy: 0, usual: 1 }]);
    expect(back.findings.map(({ code }) => code)).toContain("backup-is-only-copy");
    const quick = walked(plan, { kind: "back-up", pool: "p1", to: "x", rate: 1e9 }, anew);
    expect(quick.cost.offline.expected).toBeCloseTo(2e12 / 1e9 / 3600, 6);
  });
});

test("no step that erases data can be undone, whatever it does with the drive", () => {
  const raid = holding(boxWith("linux-host", "raid5", [4, 4, 4], [4, 4, 4], { volumes }), "x1");
  const parity = holding(boxWith("parity-drive", "parity-drive-1", [4, 4, 8], [8], { volumes }), "x1");
  const cases: [Plan, StepBody][] = [
    [raid, pull("d1", "x1")],
    [raid, { kind: "set-spare", pool: "p1", drive: "x1" }],
    [raid, create("raid1", "x1", "x2")],
    [parity, { kind: "change-parity-drive", group: "g1", drive: "d3", by: "x1" }],
    [parity, level("parity-drive-2", "x1")],
  ];
  for (const [plan, step] of cases) {
    expect([step.kind, walked(plan, step).cost.undoable, codes(plan, step)]).toEqual([
      step.kind,
      false,
      expect.arrayContaining(["will-be-erased"]),
    ]);
    expect(walked(holding(plan, "x1", { contents: undefined }), step).cost.undoable).toBe(true);
  }
});

test("a planned test is credited: what it leaves is the owner's decision", () => {
  const worn = { health: { state: "watch" as const, reallocatedSectors: 24 } };
  const plan = holding(boxWith("linux-host", "raid5", [4, 4, 4], [4]), "x1", worn);
  const about = (...steps: StepBody[]) => {
    const { severity, message } = walked(plan, ...steps).findings.find(({ code }) => code === "drive-suspect")!;
    return `${severity} ${message}`;
  };
  const spare: StepBody = { kind: "set-spare", pool: "p1", drive: "x1" };
  for (const step of [widen("x1"), pull("d1", "x1"), spare]) {
    expect(about(step)).toMatch(/^warn .*24 worn-out sectors\. Test it before use/);
    expect(about({ kind: "test-drive", drive: "x1" }, step)).toMatch(/^note .* still has 24 worn-out sectors: your/);
  }
});

test("a drive on the shelf is tested in a free bay, or on an adapter where there is none", () => {
  const test: StepBody = { kind: "test-drive", drive: "x1" };
  expect(walked(boxWith("classic-raid", "raid1", [4, 4], [4], {}, 3), test).does).toMatch(/goes into bay 3, or on an/);
  const full = boxWith("classic-raid", "raid1", [4, 4], [4], {}, 2);
  expect([codes(full, test), walked(full, test).does]).toEqual([
    ["test-on-adapter"],
    expect.stringMatching(/attached by an adapter/),
  ]);
});
