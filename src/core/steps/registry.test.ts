import fc from "fast-check";
import { readFileSync } from "node:fs";
import { GiB } from "../bytes/bytes";
import { emptyPlan } from "../document/emptyPlan";
import type { LayoutId, Plan, Step, StepBody, StepKind } from "../document/plan";
import schema from "../document/schema/plan-1.json";
import { fewestDrives } from "../layouts/problemsOfLayout";
import { layouts } from "../layouts/registry";
import { widensByDrive } from "../layouts/widens";
import { rulesOf } from "../rules/ruleSets";
import { anyStepOn } from "../testing/anySteps";
import { testDrive } from "../testing/arbitraries";
import { walkPlan } from "../walk/walkPlan";
import { attentionOf, boughtFor } from "./attention";
import { stepsOfAct, type Act, type ActChoices } from "./propose";
import { moduleOf, stepModules } from "./registry";
import { stepLabel } from "./stepLabel";

// Laws over the catalogue of steps, so that a new one cannot be forgotten somewhere.

const kinds = Object.keys(stepModules) as StepKind[];

/** Six drives in a pool of single parity with a volume, four more on the shelf, one of them to be bought. */
const box: Plan = {
  ...emptyPlan("x"),
  box: { name: "x", bays: 12, rules: { set: "linux-host", overrides: { parityWrites: "by-schedule" } } },
  drives: [
    ...[1, 2, 3, 4].map((n) => testDrive(`d${n}`, 40 * GiB, { place: { bay: n } })),
    ...[5, 6].map((n) => testDrive(`d${n}`, 40 * GiB, { contents: { kind: "data" } })),
    testDrive("d7", 80 * GiB, { toBuy: true }),
  ],
  pools: [
    {
      id: "p1",
      name: "P",
      groups: [{ id: "g1", layout: "raid5", drives: ["d1", "d2", "d3", "d4"] }],
      spares: [],
      volumes: [{ id: "v1", name: "V", bytes: 60 * GiB, fileSystem: "ext4", usedBytes: 9 * GiB }],
    },
  ],
};
const samples = fc.sample(anyStepOn(box), { numRuns: 900, seed: 1 }).map((body) => ({ ...body, id: "s1" }) as Step);
const ofKind = (kind: StepKind) => samples.filter((step) => step.kind === kind);

test("the plan schema, the catalogue and the document on plan files name the same kinds", () => {
  const defined = schema.$defs.step.oneOf.map(({ $ref }) => {
    const name = $ref.split("/").at(-1) as keyof typeof schema.$defs;
    return (schema.$defs[name] as { properties: { kind: { const: string } } }).properties.kind.const;
  });
  expect([...kinds].sort()).toEqual([...defined].sort());
  const format = readFileSync("docs/plan-format.md", "utf8");
  expect(kinds.filter((kind) => !format.includes(`\`${kind}\``))).toEqual([]);
});

describe.each(kinds)("%s", (kind) => {
  test("its module is its own, has a name, and is among the steps that properties try", () => {
    expect(moduleOf({ kind })).toMatchObject({ kind, name: expect.stringMatching(/^[A-Z]/) });
    expect(ofKind(kind).length).toBeGreaterThan(0);
  });
  test("it is said what it does and why, in a label and in sentences", () => {
    for (const step of ofKind(kind)) {
      expect(stepLabel(step, box, "TB")).toMatch(/\S/);
      const { does, why } = walkPlan({ ...box, steps: [step] }).moments[1]!.walked!;
      expect(does).toMatch(/^[A-Z].*\.$/);
      expect(why).toMatch(/^[A-Z].*\.$/);
    }
  });
  test("whatever lies on the shelf or in the shop and is named by it is taken in hand, at the box", () => {
    for (const step of ofKind(kind)) {
      const [before, after] = walkPlan({ ...box, steps: [step] }).moments;
      if (!after!.walked!.done) continue;
      const named = JSON.stringify(Object.values(step).flat());
      for (const { id, place, toBuy } of before!.state.plan.drives) {
        const touched = named.includes(`"${id}"`) || after!.walked!.cost.erased.includes(id);
        if (!touched || !("shelf" in place)) continue;
        expect([step, moduleOf(step).handles(step as never)]).toEqual([step, expect.arrayContaining([id])]);
        expect([step, attentionOf(step, box, after!.state.plan)]).toEqual([step, "box"]);
        expect(boughtFor(step, box).includes(id)).toBe(toBuy === true);
      }
    }
  });
  test("it can be planned: from a menu, by an act on the box, or by what mends another step", () => {
    const choices: ActChoices = { attached: false, as: "member", test: true, backUp: true, grow: true };
    const chunks: Plan = {
      ...box,
      pools: box.pools.map((pool) => ({ ...pool, groups: [{ ...pool.groups[0]!, layout: "copies-2" as LayoutId }] })),
    };
    const parity: Plan = {
      ...box,
      pools: box.pools.map((pool) => ({
        ...pool,
        groups: [{ ...pool.groups[0]!, layout: "parity-drive-1" as LayoutId }],
      })),
    };
    const scheduled: Plan = { ...parity, box: { ...parity.box, rules: { set: "scheduled-parity" } } };
    const acts: [Plan, Act, Partial<ActChoices>?][] = [
      [box, { kind: "replace", drive: "d1", by: "d7" }],
      [parity, { kind: "replace", drive: "d4", by: "d7" }],
      [chunks, { kind: "join", group: "g1", drives: ["d5"] }],
      [box, { kind: "join", group: "g1", drives: ["d5", "d6"] }, { as: "group" }],
      [box, { kind: "join", group: "g1", drives: ["d5"] }, { as: "spare" }],
      [box, { kind: "level", group: "g1", layout: "raid6", drives: ["d5"] }],
      [box, { kind: "pull", drive: "d1" }],
    ];
    const setting = (plan: Plan) => ({ plan, rules: rulesOf(plan.box.rules), unit: "TB" as const });
    const { menu } = moduleOf({ kind });
    const offered: StepBody[] =
      menu.under === "pool"
        ? [box, chunks, scheduled]
            .flatMap((plan) => plan.pools.flatMap((pool) => menu.offers(pool, setting(plan))))
            .flatMap((offer) => offer.steps)
        : menu.under === "drives"
          ? menu.offers(setting(box)).flatMap((offer) => offer.steps)
          : [];
    const byActs = acts.flatMap(([plan, act, change]) =>
      stepsOfAct(act, { ...choices, ...change }, plan, rulesOf(plan.box.rules)),
    );
    // A pool made anew mends a change that has no path; making a pool and ending a spare are acts of the workbench;
    // what brings a drive back that is gone is planned by Rescue.
    const byOthers = ["rebuild-from-backup", "create-group", "remove-spare", "rebuild", "restore-drive"];
    expect([...offered, ...byActs].some((step) => step.kind === kind) || byOthers.includes(kind)).toBe(true);
  });
});

test.each(layouts.map((layout) => [layout.id, layout] as const))(
  "what a further drive means to %s is what widening does",
  (id, layout) => {
    const count = Math.max(fewestDrives(layout, rulesOf({ set: "linux-host" })), 4);
    const drives = Array.from({ length: count }, (_, i) => testDrive(`d${i + 1}`, 40 * GiB, { place: { bay: i + 1 } }));
    const plan: Plan = {
      ...emptyPlan("x"),
      box: {
        name: "x",
        bays: 12,
        rules: { set: "linux-host", overrides: { layouts: layouts.map((each) => each.id), joining: "any-size" } },
      },
      drives: [...drives, testDrive("x1", 40 * GiB)],
      pools: [
        {
          id: "p1",
          name: "P",
          groups: [{ id: "g1", layout: id, drives: drives.map((drive) => drive.id) }],
          spares: [],
          volumes: [],
        },
      ],
      steps: [{ id: "s1", kind: "widen-group", group: "g1", drives: ["x1"] }],
    };
    const { done, cost } = walkPlan(plan).moments[1]!.walked!;
    expect(done).toBe(widensByDrive(layout, rulesOf(plan.box.rules)));
    const writes = (drive: string) => cost.work.some((work) => work.drive === drive && work.writes > 0);
    if (done)
      expect(layout.widening).toBe(
        writes("d1") ? "rewrites" : writes("x1") && !layout.dedicatedParity ? "copies" : "joins",
      );
    else expect(layout.widening).toBe("never");
  },
);
