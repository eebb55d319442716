import { withParityNamed } from "../box/parityNamed";
import { applyCommand } from "../commands/applyCommand";
import type { Command } from "../document/command";
import type { Plan } from "../document/plan";
import { rulesOf } from "../rules/ruleSets";
import { boxWith, withDrive, withRules } from "../testing/boxWith";
import { capacitiesOf } from "../box/capacities";
import { predict } from "./predict";
import { storageTotal } from "./storageTotal";

const findings = (plan: Plan, pool = 0) => predict(plan).pools[pool]!.findings;
const found = (plan: Plan, code: string) => findings(plan).filter((finding) => finding.code === code);

describe("a member that fails or is worn", () => {
  const failing = withDrive(boxWith("linux-host", "raid5", [4, 4, 4], [3, 8, 6]), "d2", {
    health: { state: "failing" },
  });

  test("it is said first what to save; the mend puts another in its place and never only takes it out", () => {
    const [finding] = found(failing, "drive-failing");
    expect(finding!.message).toMatch(/^Copy what matters off now, while it can be read/);
    expect(finding!.mend).toEqual({
      label: "Replace it by the 6\u00a0TB drive on the shelf (x3)",
      command: { kind: "insert-steps", steps: [{ kind: "replace-drive", drive: "d2", by: "x3", how: "attached" }] },
    });
  });

  test.each<[string, Plan, object | undefined]>([
    ["pulled where the box cannot do otherwise", withRules(failing, { replacing: "pull-first" }), { how: "pulled" }],
    ["nothing where no free drive would do", { ...failing, drives: failing.drives.slice(0, 4) }, undefined],
    [
      "nothing where it could not be filled again",
      withDrive(boxWith("classic-raid", "raid0", [4, 4], [4]), "d1", { health: { state: "failing" } }),
      undefined,
    ],
    [
      "the parity drive by its own step",
      withDrive(withParityNamed(boxWith("parity-drive", "parity-drive-1", [4, 4, 8], [8])), "d3", {
        health: { state: "failing" },
      }),
      { kind: "change-parity-drive", drive: "d3", by: "x1" },
    ],
  ])("%s", (_, plan, step) => {
    const command = found(plan, "drive-failing")[0]!.mend?.command;
    if (step === undefined) expect(command).toBeUndefined();
    else expect(command).toMatchObject({ kind: "insert-steps", steps: [step] });
  });
});

test("whatever a drive is put to use as: it is erased, there is no way back, and a worn one is warned of", () => {
  const plan = boxWith("linux-host", "raid5", [4, 4, 4], [4]);
  const [pool] = plan.pools;
  const [group] = pool!.groups;
  const used = withDrive(plan, "x1", { contents: { kind: "data" }, health: { state: "watch", pendingSectors: 2 } });
  const uses: Plan["pools"][number][] = [
    { ...pool!, spares: ["x1"] },
    { ...pool!, groups: [{ ...group!, spares: ["x1"] }] },
    { ...pool!, helpers: [{ drive: "x1", role: "read-cache" }] },
    { ...pool!, helpers: [{ drive: "x1", role: "write-log" }] },
    { ...pool!, groups: [{ ...group!, drives: [...group!.drives, "x1"] }] },
  ];
  for (const use of uses) {
    const there = { ...used, pools: [use] };
    expect(found(there, "will-be-erased").map(({ message }) => message)).toEqual([
      expect.stringMatching(/Everything on it is erased. It cannot be undone: only a backup brings it back/),
    ]);
    expect(found(there, "drive-suspect")).toHaveLength(1);
  }
});

describe("idle tops are one note, which names the culprit", () => {
  const said = (plan: Plan) => found(plan, "idle-room").map(({ message }) => message.replaceAll("\u00a0", " "));
  test("one small drive holds four others down", () => {
    expect(said(boxWith("classic-raid", "raid5", [4, 4, 4, 4, 1]))).toEqual([
      "The 1 TB drive in bay 5 holds the 4 others down to 1 TB each: without it 12.00 TB.",
    ]);
  });
  test("where none does, how much lies idle on which", () => {
    expect(said(boxWith("classic-raid", "raid5", [4, 4, 4, 8, 8]))).toEqual([
      "8.00 TB stay unused on the 8 TB drive in bay 4 and the 8 TB drive in bay 5 until another drive is larger.",
    ]);
    expect(said(boxWith("hybrid-box", "hybrid-1", [4, 4, 8]))).toEqual([
      "4.00 TB of the 8 TB drive in bay 3 stays unused until another drive is larger.",
    ]);
    expect(said(boxWith("classic-raid", "raid5", [4, 4, 4]))).toEqual([]);
  });
});

test("of chunks nothing is counted beyond the tolerance, since their place is up to the box", () => {
  const [chunks] = predict(boxWith("chunk-copies", "copies-2", [4, 4, 4, 4])).pools;
  expect(chunks!.survival).toEqual([{ failed: 1, survived: 4, sets: 4 }]);
  expect(predict(boxWith("linux-host", "raid10", [4, 4, 4, 4])).pools[0]!.survival).toHaveLength(4);
});

test("two flash drives are a landing place in a box of parity drives, and do not count as storage", () => {
  const plan = boxWith("parity-drive", "parity-drive-1", [4, 4, 8], [1, 1]);
  const flash = ["x1", "x2"].reduce((made, id) => withDrive(made, id, { medium: "ssd", bus: "nvme" }), plan);
  const commands: Command[] = [
    { kind: "make-group", drives: ["x1", "x2"], layout: "raid1", pool: null },
    { kind: "set-landing", pool: "p2", landsFor: "p1" },
  ];
  const made = commands.reduce((now, command) => {
    const result = applyCommand(now, command);
    if (!result.ok) throw new Error(result.reason);
    return result.plan;
  }, flash);
  for (const there of [made, withRules(made, { layouts: ["parity-drive-1"] })])
    expect(findings(there, 1).map(({ code }) => code)).toEqual(["landing-place"]);
  const { pools } = predict(made);
  expect(storageTotal(made, pools)).toBe(pools[0]!.usableBytes);
  expect(capacitiesOf(made, rulesOf(made.box.rules)).pool).toBe(pools[0]!.usableBytes);
});
