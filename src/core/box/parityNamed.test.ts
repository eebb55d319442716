import { applyCommand } from "../commands/applyCommand";
import type { Command } from "../document/command";
import type { Plan, StepBody } from "../document/plan";
import { predict } from "../prediction/predict";
import { numbered } from "../testing/anySteps";
import { boxWith } from "../testing/boxWith";
import { walkPlan } from "../walk/walkPlan";
import { openPlan } from "./openPlan";
import { withParityNamed } from "./parityNamed";

const old = boxWith("parity-drive", "parity-drive-1", [4, 4, 8], [8, 12, 8]);
const plan = withParityNamed(old);
const parityOf = (of: Plan) => of.pools.flatMap((pool) => pool.groups.map((group) => group.options?.parityDrives));
const after = (from: Plan, ...commands: Command[]): Plan =>
  commands.reduce((current, command) => {
    const result = applyCommand(current, command);
    if (!result.ok) throw new Error(result.reason);
    return result.plan;
  }, from);
const walked = (...steps: StepBody[]) => walkPlan(numbered(plan, steps)).moments.at(-1)!;

test("an older file is read with the parity drive named that was drawn of it, and holds what it held", () => {
  const read = openPlan(JSON.stringify(old));
  expect(read.ok && parityOf(read.plan)).toEqual([["d3"]]);
  expect(read.ok && predict(read.plan).pools[0]!.usableBytes).toBe(predict(old).pools[0]!.usableBytes);
  expect(withParityNamed(plan)).toBe(plan);
});

test("a group that is made by hand or by a step has its parity drive named at once; another layout names none", () => {
  const made = after(plan, { kind: "make-group", pool: null, layout: "parity-drive-2", drives: ["x1", "x2", "x3"] });
  expect(parityOf(made)).toEqual([["d3"], ["x2", "x3"]]);
  expect(parityOf(after(plan, { kind: "change-layout", group: "g1", layout: "raid5" }))).toEqual([undefined]);
  expect(parityOf(after(plan, { kind: "change-layout", group: "g1", layout: "parity-drive-2" }))).toEqual([
    ["d3", "d2"],
  ]);
  const added = walked({ kind: "add-group", pool: "p1", group: "g2", layout: "parity-drive-1", drives: ["x1", "x3"] });
  expect(parityOf(added.state.plan)).toEqual([["d3"], ["x3"]]);
});

test("it stays the parity drive whatever joins or takes a place, until it is changed by its own step", () => {
  expect(parityOf(after(plan, { kind: "add-to-group", group: "g1", drives: ["x1"] }))).toEqual([["d3"]]);
  expect(parityOf(walked({ kind: "widen-group", group: "g1", drives: ["x1"] }).state.plan)).toEqual([["d3"]]);
  const replaced = walked({ kind: "replace-drive", drive: "d1", by: "x1", how: "pulled" });
  expect(parityOf(replaced.state.plan)).toEqual([["d3"]]);
  const changed = walked({ kind: "change-parity-drive", group: "g1", drive: "d3", by: "x2" });
  expect(parityOf(changed.state.plan)).toEqual([["x2"]]);
  const removed = walked({ kind: "remove-drive", drive: "d3" }).walked!;
  expect([removed.done, removed.findings.map(({ code }) => code)]).toEqual([false, ["is-the-parity-drive"]]);
});

test("a data drive that is larger than parity is a block, protected no further, and mended by naming it", () => {
  const larger = after(plan, { kind: "add-to-group", group: "g1", drives: ["x2"] });
  const [pool] = predict(larger).pools;
  const block = pool!.findings.find(({ code }) => code === "larger-than-parity")!;
  expect(block).toMatchObject({ severity: "block", drives: ["x2"] });
  // 4 + 4 + 8 of the 12 TB.
  expect(pool!.usableBytes / 1e12).toBeCloseTo(16, 1);
  const mended = after(larger, block.mend!.command);
  expect(parityOf(mended)).toEqual([["x2"]]);
  expect(predict(mended).pools[0]!.findings.some(({ code }) => code === "larger-than-parity")).toBe(false);
  expect(predict(mended).pools[0]!.usableBytes / 1e12).toBeCloseTo(16, 1);
});
