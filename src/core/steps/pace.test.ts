import type { Plan, StepBody, StepKind } from "../document/plan";
import schema from "../document/schema/plan-1.json";
import { numbered } from "../testing/anySteps";
import { boxWith, withRules } from "../testing/boxWith";
import { attach, claim, create, level, pull, widen } from "../testing/stepsInShort";
import { walkPlan } from "../walk/walkPlan";
import { stepModules } from "./registry";

const definitions = schema.$defs as Record<string, { properties?: object }>;
const named = (kind: StepKind) => `${kind.replace(/-(.)/g, (_, letter: string) => letter.toUpperCase())}Step`;

test.each(Object.values(stepModules).map((module) => [module.kind, module.paced === true] as const))(
  "%s says whom the box favours where its pace follows that: %s",
  (kind, paced) => expect("preference" in (definitions[named(kind)]?.properties ?? {})).toBe(paced),
);

const volumes = [{ id: "v1", name: "V", bytes: 4e12, fileSystem: "ext4" as const, usedBytes: 1e12 }];
const box = (layout: Parameters<typeof boxWith>[1], set: Parameters<typeof boxWith>[0] = "linux-host") =>
  boxWith(set, layout, [4, 4, 4, 4], [4, 8], { volumes });
const hours = (plan: Plan, step: StepBody) => walkPlan(numbered(plan, [step])).moments[1]!.walked!.cost.hours.expected;

describe("the owner's preference, in the rules or on the step: 0.4 times as fast for the users", () => {
  test.each<[string, Plan, StepBody]>([
    ["rebuilt", box("raid5"), pull("d1", "x1")],
    ["copied", box("raid5"), attach("d1", "x1")],
    ["widened", box("raid5"), widen("x1")],
    ["to double parity", box("raid5"), level("raid6", "x1")],
    ["a new mirror", box("raid5"), create("raid1", "x1", "x2")],
    ["checked", box("raid5"), { kind: "verify", pool: "p1" }],
    ["a further parity drive", box("parity-drive-1", "parity-drive"), level("parity-drive-2", "x1")],
    [
      "another parity drive",
      box("parity-drive-1", "parity-drive"),
      { kind: "change-parity-drive", group: "g1", drive: "d4", by: "x1" },
    ],
    ["synced", box("parity-drive-1", "scheduled-parity"), { kind: "update-parity", pool: "p1" }],
    ["a chunk pool with a drive fewer", box("copies-2"), { kind: "remove-drive", drive: "d1" }],
  ])("%s", (_, plan, step) => {
    const swap = plan.box.rules.set === "linux-host" ? 0 : 0.25;
    const still = step.kind === "verify" || step.kind === "update-parity" ? 0 : swap;
    const balanced = hours(plan, step) - still;
    expect(balanced).toBeGreaterThan(1);
    const slower = [
      hours(withRules(plan, { preference: "users" }), step),
      hours(plan, { ...step, preference: "users" } as StepBody),
    ];
    for (const each of slower) expect((each - still) / balanced).toBeCloseTo(2.5, 6);
    expect(
      hours(withRules(plan, { preference: "users" }), { ...step, preference: "balanced" } as StepBody) - still,
    ).toBeCloseTo(balanced, 6);
  });

  test("a claim of larger drives follows it too, and a self-test does not", () => {
    const plan = boxWith("linux-host", "raid5", [4, 4, 4], [8, 8, 8]);
    const last = (...more: StepBody[]) => walkPlan(numbered(plan, more)).moments.at(-1)!.walked!.cost.hours.expected;
    const larger = [attach("d1", "x1"), attach("d2", "x2"), attach("d3", "x3")];
    expect(last(...larger, { ...claim(), preference: "users" } as StepBody)).toBeCloseTo(
      2.5 * last(...larger, claim()),
      6,
    );
    const tested: StepBody = { kind: "test-drive", drive: "x1" };
    expect(hours(withRules(plan, { preference: "users" }), tested)).toBe(hours(plan, tested));
  });

  test("with a cap of 40 MB/s on parity work RAID 5 is rebuilt in 27.8 h, and RAID 10 as fast as before", () => {
    const capped = (layout: "raid5" | "raid10") => withRules(box(layout), { parityRateLimit: 40e6 });
    expect(hours(capped("raid5"), pull("d1", "x1"))).toBeCloseTo(27.78, 1);
    expect(hours(capped("raid5"), widen("x1"))).toBeCloseTo(27.78, 1);
    expect(hours(capped("raid10"), pull("d1", "x1"))).toBeCloseTo(hours(box("raid10"), pull("d1", "x1")), 6);
    // Drive to drive no parity is worked out.
    expect(hours(capped("raid5"), attach("d1", "x1"))).toBeCloseTo(hours(box("raid5"), attach("d1", "x1")), 6);
  });
});
