import { nominalBytes } from "../bytes/nominalBytes";
import { emptyPlan } from "../document/emptyPlan";
import type { Plan, RuleName, Step, StepBody } from "../document/plan";
import schema from "../document/schema/plan-1.json";
import { boxScreen } from "../prediction/boxScreen";
import { predict } from "../prediction/predict";
import { ruleSets, rulesOf } from "../rules/ruleSets";
import { testDrive } from "../testing/arbitraries";
import { walkPlan } from "../walk/walkPlan";
import { entryOf, QUESTIONS } from "./registry";
import type { AnyRuleEntry, RuleAnswer } from "./ruleEntry";

const names = Object.keys(schema.$defs.ruleOverrides.properties) as RuleName[];
const ASKED_APART: readonly RuleName[] = ["layouts", "minimumDrives"];

test("every rule of the schema has its question, and every ready-made set an answer", () => {
  const asked = QUESTIONS.flatMap(({ questions }) => questions.map((each) => each.rule));
  expect([...asked, ...ASKED_APART].sort()).toEqual([...names].sort());
  for (const set of ruleSets) expect([set.id, Object.keys(set.rules).sort()]).toEqual([set.id, [...names].sort()]);
});

const TB = (n: number) => nominalBytes(n * 1000);
const disk = (id: string, tb: number, more: Parameters<typeof testDrive>[2] = {}) => testDrive(id, TB(tb), more);

/**
 * Plans in which every rule could matter: drives of all kinds, a pool of each sort, and steps that ask for everything.
 */
const steps: StepBody[] = [
  { kind: "widen-group", group: "g1", drives: ["x1", "x2"] },
  { kind: "widen-group", group: "g1", drives: ["x3"] },
  { kind: "change-level", group: "g1", layout: "triple-parity", drives: ["x1", "x2"] },
  { kind: "replace-drive", drive: "d1", by: "x4", how: "attached" },
  { kind: "replace-drive", drive: "d1", by: "x4", how: "pulled" },
  { kind: "set-spare", pool: "p1", drive: "x2" },
  { kind: "shrink-volume", pool: "p1", volume: "v1", bytes: 1e12 },
  { kind: "verify", pool: "p1" },
];
const mixed = [
  disk("d1", 4, { place: { bay: 1 }, contents: { kind: "system" } }),
  disk("d2", 4, { place: { bay: 2 }, bus: "sas" }),
  disk("d3", 4, { place: { bay: 3 }, medium: "ssd" }),
  disk("d4", 4, { place: { bay: 4 }, bus: "usb" }),
  disk("d5", 8, { place: { bay: 5 }, logicalSector: 4096 }),
];
const shelf = [disk("x1", 4), disk("x2", 4), disk("x3", 3), disk("x4", 8), disk("x5", 12)];
const sharing = ["x1", "x2", "x3"];
const planWith = (layout: "raid5" | "parity-drive-1" | "hybrid-1", list: readonly StepBody[]): Plan => ({
  ...emptyPlan("x"),
  box: { name: "x", bays: 12, rules: { set: "linux-host" } },
  drives: [...mixed, ...shelf],
  pools: [
    {
      id: "p1",
      name: "P",
      groups: [{ id: "g1", layout, drives: mixed.map((drive) => drive.id) }],
      spares: [],
      volumes: [{ id: "v1", name: "V", bytes: 4e12, fileSystem: "ext4", usedBytes: 5e11 }],
    },
  ],
  steps: list.map((step, i) => ({ ...step, id: `s${i + 1}` }) as Step),
});
const twoGroups: Plan = {
  ...planWith("raid5", []),
  pools: [
    {
      id: "p1",
      name: "P",
      groups: [
        { id: "g1", layout: "raid5", drives: mixed.slice(0, 3).map((drive) => drive.id) },
        { id: "g2", layout: "raid5", drives: sharing },
      ],
      spares: ["x4"],
      volumes: [],
    },
  ],
};
/** A box that copies all where it rebuilds; one that is off for each change of a drive. */
const separate = {
  ...planWith("raid5", [
    { kind: "mirror-drive", pool: "p1", group: "g1", name: "P", drive: "d2", by: "x5", also: ["d3"] },
  ]),
};
separate.pools = [{ ...separate.pools[0]!, groups: [{ id: "g1", layout: "single", drives: ["d2", "d3"] }] }];
const offForASwap = planWith("raid5", [{ kind: "replace-drive", drive: "d1", by: "x4", how: "pulled" }]);
offForASwap.box = { ...offForASwap.box, rules: { set: "linux-host", overrides: { swapping: "power-off" } } };
const keepsAShare = planWith("raid5", []);
keepsAShare.box = { ...keepsAShare.box, rules: { set: "linux-host", overrides: { poolReserveShare: 1 / 32 } } };
const plans = [
  twoGroups,
  keepsAShare,
  planWith("parity-drive-1", [{ kind: "widen-group", group: "g1", drives: ["x5"] }]),
  planWith("raid5", []),
  planWith("parity-drive-1", []),
  planWith("hybrid-1", [{ kind: "widen-group", group: "g1", drives: ["x3"] }]),
  ...steps.map((step) => planWith("raid5", [step])),
  planWith(
    "raid5",
    ["d1", "d2", "d3", "d4"].map((drive, i) => ({ kind: "replace-drive", drive, by: `y${i}`, how: "pulled" })),
  ),
  separate,
  offForASwap,
].map((plan) => ({ ...plan, drives: [...plan.drives, ...[0, 1, 2, 3].map((i) => disk(`y${i}`, 8))] }));

/** What the core says of a plan, by what a rule can act on: the pools now, every moment, the box's own screen. */
const SAID: Record<AnyRuleEntry["actsOn"], (plan: Plan) => unknown> = {
  // What acts on the pools acts on the steps that make them.
  prediction: (plan) => [predict(plan).pools, SAID.steps(plan)],
  steps: (plan) =>
    walkPlan(plan).moments.map(({ walked, capacities, state }) => [walked, capacities, state.plan.pools]),
  words: (plan) => boxScreen(TB(4), rulesOf(plan.box.rules)),
};
const under = (plan: Plan, rule: RuleName, { value, also }: Pick<RuleAnswer, "value" | "also">): Plan => ({
  ...plan,
  box: {
    ...plan.box,
    rules: { set: "linux-host", overrides: { ...plan.box.rules.overrides, [rule]: value, ...also } },
  },
});

test.each(QUESTIONS.flatMap(({ questions }) => questions.map((each) => [each.rule, each.actsOn] as const)))(
  "the rule %s is read: each answer changes something for some plan, in what it acts on (%s)",
  (rule, actsOn) => {
    const answers: readonly RuleAnswer[] = entryOf(rule)!.answers;
    const differs = (of: AnyRuleEntry["actsOn"], one: RuleAnswer, other: RuleAnswer) =>
      plans.some(
        (plan) =>
          JSON.stringify(SAID[of](under(plan, rule, one))) !== JSON.stringify(SAID[of](under(plan, rule, other))),
      );
    const now = (value: RuleAnswer) => JSON.stringify(plans.map((plan) => predict(under(plan, rule, value)).pools));
    const pairs = answers.flatMap((one, i) => answers.slice(i + 1).map((other) => [one, other] as const));
    // No box takes a data drive that is larger than parity, so these two differ only in what is said of them.
    const isSaid = (value: unknown) => rule === "joining" && (value === "up-to-parity" || value === "any-size");
    for (const [one, other] of pairs.filter((pair) => !pair.every(({ value }) => isSaid(value))))
      expect([one.label, other.label, differs(actsOn, one, other)]).toEqual([one.label, other.label, true]);
    // What acts on steps alone leaves the box as it is now alone.
    if (actsOn === "steps") expect(pairs.some(([one, other]) => now(one) !== now(other))).toBe(false);
  },
);
