import { openPlan } from "../box/openPlan";
import { formatExactBytes } from "../bytes/formatBytes";
import { EDITION, ofThisEdition } from "../document/edition";
import type { Plan, RuleSetId, StepBody } from "../document/plan";
import { rulesOf, ruleSets } from "../rules/ruleSets";
import { numbered } from "../testing/anySteps";
import { boxWith, withRules } from "../testing/boxWith";
import { walkPlan } from "../walk/walkPlan";
import { boxFindings } from "./boxFindings";
import { boxScreen } from "./boxScreen";
import { predict } from "./predict";

const codes = (plan: Plan) => predict(plan).pools[0]!.findings.map(({ severity, code }) => `${severity} ${code}`);
const usable = (plan: Plan) => predict(plan).pools[0]!.usableBytes;

describe("a two-drive desktop mirror", () => {
  const mirror = boxWith("desktop-mirror", "raid1", [4, 4], [4], {}, 2);

  test("keeps nothing of 2 × 320 GB but what is below a MiB, and prints GB for what is GiB", () => {
    const small = boxWith("desktop-mirror", "raid1", [0.32, 0.32], [], {}, 2);
    const [drive] = small.drives;
    expect(formatExactBytes(drive!.bytes).replaceAll("\u202f", " ")).toMatch(/^320 072 933 376/);
    expect(usable(small)).toBe(305_245 * 2 ** 20);
    expect(boxScreen(usable(small), rulesOf(small.box.rules))).toBe("298.1\u00a0GB");
    expect(boxScreen(usable(mirror), rulesOf(mirror.box.rules))).toBe("3.64\u00a0TB");
  });

  test("a third member is refused by its rules, with the reason", () => {
    const more = { ...mirror, box: { ...mirror.box, bays: 3 } };
    const { walked } = walkPlan(numbered(more, [{ kind: "widen-group", group: "g1", drives: ["x1"] }])).moments[1]!;
    expect(walked!.done).toBe(false);
    expect(walked!.findings.map(({ message }) => message)).toContain("Your box takes 2 drives at most: 1 too many.");
    expect(codes(boxWith("desktop-mirror", "raid1", [4, 4, 4], [], {}, 3))).toContain("block wrong-drive-count");
  });

  test("a saved plan with more bays opens with a finding, which mends it where the bays are empty", () => {
    expect(boxFindings(mirror)).toEqual([]);
    const four = { ...mirror, box: { ...mirror.box, bays: 4 } };
    expect(boxFindings(four)).toMatchObject([
      { code: "too-many-bays", severity: "warn", mend: { command: { kind: "change-box", bays: 2 } } },
    ]);
    const full = boxWith("desktop-mirror", "raid1", [4, 4, 4], [], {}, 4);
    expect(boxFindings(full)[0]).toMatchObject({ drives: ["d3"] });
    expect(boxFindings(full)[0]!.mend).toBeUndefined();
  });
});

test("partitions of the older style end at 2 TiB: 4 TB are refused, 2 TB are not", () => {
  const older = { partitioning: "mbr" } as const;
  expect(codes(withRules(boxWith("desktop-mirror", "raid1", [4, 4], [], {}, 2), older))).toContain(
    "block mbr-too-small",
  );
  expect(codes(withRules(boxWith("desktop-mirror", "raid1", [2, 2], [], {}, 2), older))).not.toContain(
    "block mbr-too-small",
  );
});

describe("files of the first edition of the sets", () => {
  const plans: [RuleSetId, Plan][] = ruleSets.map(({ id, rules }) => [
    id,
    boxWith(id, rules.layouts[0]!, [4, 4, 4, 4].slice(0, rules.mostDrives ?? 4), [8]),
  ]);

  test.each(plans)("%s: its pools hold what they held", (set, plan) => {
    const { edition: _none, ...old } = plan;
    const result = openPlan(JSON.stringify(old));
    if (!result.ok) throw new Error(result.kind);
    const kept = set === "desktop-mirror" ? 2 * 2 ** 30 : 0;
    expect(usable(result.plan)).toBe(usable(old) - kept);
    expect(result.plan.edition).toBe(EDITION);
    expect(ofThisEdition(result.plan)).toBe(result.plan);
    // A request is answered by the sets as they are, and so is a file that says so.
    for (const text of [JSON.stringify({ ...old, edition: EDITION }), JSON.stringify(old)]) {
      const asItIs = openPlan(text, "newest");
      expect(asItIs.ok && usable(asItIs.plan)).toBe(usable(old));
    }
  });

  test.each([
    ["fixed-group", {}, { claiming: "by-itself" }],
    ["parity-drive", {}, { claiming: "per-drive" }],
    ["desktop-mirror", { systemReserveBytes: 5 }, { systemReserveBytes: 5 }],
  ] as const)("%s with %j still does what it did, also where a pool is moved into it", (set, overrides, rules) => {
    const { edition: _none, ...plan } = withRules(boxWith(set, "raid1", [4, 4]), overrides);
    const moved: StepBody = { kind: "rebuild-from-backup", pool: "p1", layout: "raid1", drives: ["d1"], box: plan.box };
    const { box, steps } = ofThisEdition(numbered(plan, [moved]));
    expect(rulesOf(box.rules)).toMatchObject(rules);
    expect(steps[0]).toMatchObject({ box: { rules: box.rules } });
  });
});
