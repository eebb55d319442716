import type { BoxRules, LayoutId, Plan, Pool, RuleSetId } from "../document/plan";
import { rulesOf } from "../rules/ruleSets";
import { boxWith } from "../testing/boxWith";
import { filledOf } from "./filledOf";
import { stepsOfAct, usualChoices, type Act, type ActChoices } from "./propose";

const volumes: Pool["volumes"] = [{ id: "v1", name: "V", bytes: 3e12, fileSystem: "ext4", usedBytes: 1e12 }];
const box = (set: RuleSetId, layout: LayoutId, tb: number[], overrides: Partial<BoxRules> = {}): Plan => {
  const plan = boxWith(set, layout, tb, [4, 8, 8], { volumes }, tb.length + 1);
  return { ...plan, box: { ...plan.box, rules: { set, overrides } } };
};
const BOXES: Record<string, Plan> = {
  linux: box("linux-host", "raid5", [4, 4, 4]),
  classic: box("classic-raid", "raid5", [4, 4, 4]),
  fixed: box("fixed-group", "raid5", [4, 4, 4]),
  "fixed, by hand": box("fixed-group", "raid5", [4, 4, 4], { growing: "by-hand" }),
  pairs: box("fixed-group", "raid1", [4, 4]),
  parity: box("parity-drive", "parity-drive-1", [4, 4, 4]),
  scheduled: box("scheduled-parity", "parity-drive-1", [4, 4, 4]),
  raid10: box("classic-raid", "raid10", [4, 4, 4, 4]),
  chunks: box("chunk-copies", "copies-2", [4, 4]),
  hybrid: box("hybrid-box", "hybrid-1", [4, 4]),
};
const replace = (by: string, drive = "d1"): Act => ({ kind: "replace", drive, by });
const join = (...drives: string[]): Act => ({ kind: "join", group: "g1", drives });
const level: Act = { kind: "level", group: "g1", layout: "raid6", drives: ["x1"] };

/** A step in short: its kind, and what it names. */
const short = (step: object) => Object.values(step).map(String).join(" ");

test.each<[string, Act, Partial<ActChoices>, string[]]>([
  ["linux", replace("x2"), {}, ["replace-drive d1 x2 attached", "claim-space g1", "grow", "files"]],
  ["linux", replace("x2"), { grow: false }, ["replace-drive d1 x2 attached"]],
  ["linux", replace("x1"), { attached: false }, ["replace-drive d1 x1 pulled"]],
  ["linux", replace("x1"), { test: true, backUp: true }, ["test-drive x1", "back-up", "replace-drive d1 x1 attached"]],
  ["linux", replace("nowhere"), {}, ["replace-drive d1 nowhere pulled"]],
  ["linux", replace("x1", "nowhere"), {}, []],
  ["fixed", replace("x2"), {}, ["replace-drive d1 x2 attached", "claim-space g1"]],
  ["fixed, by hand", replace("x2"), {}, ["replace-drive d1 x2 attached", "claim-space g1", "grow", "files"]],
  ["parity", replace("x2"), {}, ["replace-drive d1 x2 pulled"]],
  ["scheduled", replace("x2"), {}, ["replace-drive d1 x2 pulled", "claim-space g1 x2", "grow", "files"]],
  ["parity", replace("x2", "d3"), {}, ["change-parity-drive g1 d3 x2"]],
  ["chunks", replace("x2"), {}, ["replace-drive d1 x2 attached", "claim-space g1 x2", "rebalance g1", "grow", "files"]],
  ["linux", join("x1", "x2"), {}, ["back-up", "widen-group g1 x1,x2", "grow", "files"]],
  ["classic", join("x1", "x2"), { backUp: false }, ["widen-group g1 x1", "widen-group g1 x2", "grow", "files"]],
  ["pairs", join("x1"), { grow: false, backUp: false }, ["widen-group g1 x1"]],
  ["pairs", join("x1", "x2"), { grow: false }, ["add-group p1 g2 raid1 x1,x2"]],
  ["raid10", join("x1", "x2"), { backUp: false, grow: false }, ["widen-group g1 x1,x2"]],
  ["chunks", join("x1"), {}, ["widen-group g1 x1", "rebalance g1", "grow", "files"]],
  ["chunks", join("x1"), { grow: false, test: true }, ["test-drive x1", "widen-group g1 x1"]],
  ["linux", join("x1", "x2"), { as: "spare", backUp: false }, ["set-spare p1 x1", "set-spare p1 x2"]],
  ["fixed, by hand", join("x1", "x2"), {}, ["add-group p1 g2 raid1 x1,x2", "grow true", "files true"]],
  ["fixed", join("x1", "x2", "x3"), {}, ["add-group p1 g2 raid5 x1,x2,x3"]],
  ["linux", level, {}, ["back-up", "change-level g1 raid6 x1", "grow", "files"]],
  ["linux", level, { grow: false, backUp: false, test: true }, ["test-drive x1", "change-level g1 raid6 x1"]],
  ["chunks", { kind: "pull", drive: "d1" }, { test: true }, ["remove-drive d1"]],
])("on %s: %j with %j", (name, act, choices, expected) => {
  const plan = BOXES[name]!;
  const rules = rulesOf(plan.box.rules);
  const steps = stepsOfAct(act, { ...usualChoices(act, plan, rules), ...choices }, plan, rules);
  const told = steps.map((step) =>
    short(step)
      .replace(/^back-up p1 .*/, "back-up")
      .replace("grow-volume p1 v1", "grow")
      .replace("grow-file-system p1 v1", "files"),
  );
  expect(told).toEqual(expected);
});

test("a careful owner's choices: what the box lets, where there is room, and what is rewritten or precious", () => {
  const usual = (name: string, act: Act, change: Partial<Plan> = {}) => {
    const plan = { ...BOXES[name]!, ...change };
    return usualChoices(act, plan, rulesOf(plan.box.rules));
  };
  const usualReplacing = { attached: true, as: "member", test: false, backUp: false, grow: true };
  expect(usual("linux", replace("x1"))).toEqual(usualReplacing);
  const full = { box: { ...BOXES.linux!.box, bays: 3 } };
  expect(usual("linux", replace("x1"), full).attached).toBe(false);
  expect([usual("linux", join("x1")), usual("fixed", join("x1"))].map(({ as, backUp }) => [as, backUp])).toEqual([
    ["member", true],
    ["group", false],
  ]);
  expect(usual("chunks", join("x1"))).toMatchObject({ as: "member", backUp: false, attached: false });
  const dataSets: Plan["dataSets"] = [{ id: "s1", name: "S", volume: "v1", bytes: 1e12, worth: "precious" }];
  expect(usual("classic", replace("x1")).backUp).toBe(false);
  expect(usual("classic", replace("x1"), { dataSets }).backUp).toBe(true);
  // With the old drive attached nothing is at risk.
  expect(usual("linux", replace("x1"), { dataSets }).backUp).toBe(false);
});

test("the ids of groups that are there, or that steps make, are not given again", () => {
  const plan: Plan = {
    ...BOXES.fixed!,
    steps: [{ id: "s1", kind: "add-group", pool: "p1", group: "g2", layout: "raid1", drives: ["x1", "x2"] }],
  };
  const [own] = stepsOfAct(
    join("x3"),
    usualChoices(join("x3"), plan, rulesOf(plan.box.rules)),
    plan,
    rulesOf(plan.box.rules),
  );
  expect(own).toMatchObject({ kind: "add-group", group: "g3", layout: "raid5" });
});

test("what chunks fill of each drive: where most room is, its part of a pool of several groups, or as it was left", () => {
  const plan = box("chunk-copies", "copies-2", [4, 4, 8]);
  const [pool] = plan.pools;
  const rules = rulesOf(plan.box.rules);
  const tenths = (filled: Record<string, number>) => Object.values(filled).map((bytes) => Math.round(bytes / 1e11));
  // 1 TB in two copies: all of it on the largest, the other copies on the two that are next.
  expect(tenths(filledOf(plan, pool!, pool!.groups[0]!, rules))).toEqual([5, 5, 10]);
  const halves = {
    ...pool!,
    groups: [...pool!.groups, { id: "g2", layout: "copies-2" as const, drives: ["x2", "x3"] }],
  };
  // The groups hold 8 TB each, so half of what is stored lies in the first.
  expect(tenths(filledOf(plan, halves, halves.groups[0]!, rules))).toEqual([3, 3, 5]);
  const left = { ...pool!.groups[0]!, filled: { d1: 7, d2: 0, d3: 7 } };
  expect(filledOf(plan, pool!, left, rules)).toEqual({ d1: 7, d2: 0, d3: 7 });
});
