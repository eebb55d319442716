import fc from "fast-check";
import { applyCommand } from "../commands/applyCommand";
import type { Command } from "../document/command";
import type { Plan } from "../document/plan";
import { checkPlan } from "../document/readPlan";
import { clinic } from "../document/samples/clinic";
import { predict } from "../prediction/predict";
import { ruleSets } from "../rules/ruleSets";
import { anyPlan } from "../testing/anyPlan";
import { drivesOfTB } from "../testing/arbitraries";
import { ruleConsequence } from "./ruleConsequence";
import { ruleEffect } from "./ruleEffect";

const after = (plan: Plan, ...commands: Command[]) =>
  commands.reduce((current, command) => {
    const result = applyCommand(current, command);
    if (!result.ok) throw new Error(result.reason);
    return result.plan;
  }, plan);
const added = (...tb: number[]): Command => ({
  kind: "add-drives",
  drives: drivesOfTB(...tb).map(({ id: _id, place: _place, ...drive }) => ({ ...drive, medium: "ssd", bus: "nvme" })),
});
const codes = (plan: Plan, pool = 0) =>
  predict(plan).pools[pool]!.findings.map((finding) => `${finding.severity} ${finding.code}`);

describe("what stands beside a pool", () => {
  const flash = after(clinic, added(1, 1));
  test("a cache or log adds no space and may say what it can lose", () => {
    const cached = after(
      flash,
      { kind: "set-helper", pool: "p1", drives: ["d6"], role: "read-cache" },
      { kind: "set-helper", pool: "p1", drives: ["d7"], role: "write-log" },
    );
    expect(predict(cached).pools[0]).toMatchObject({
      usableBytes: predict(clinic).pools[0]!.usableBytes,
      ledger: predict(clinic).pools[0]!.ledger,
    });
    expect(codes(cached)).toEqual(expect.arrayContaining(["note read-cache", "warn single-write-log"]));
    expect(codes(after(flash, { kind: "set-helper", pool: "p1", drives: ["d6", "d7"], role: "write-log" }))).toContain(
      "note write-log",
    );
    expect(codes(after(clinic, { kind: "set-helper", pool: "p1", drives: ["d5"], role: "read-cache" }))).toContain(
      "warn helper-not-flash",
    );
    expect(checkPlan(structuredClone(cached)).ok).toBe(true);
  });
  test("a flash pool as a landing place says that it has only its own protection", () => {
    const landing = after(
      flash,
      { kind: "make-group", drives: ["d6", "d7"], layout: "raid1", pool: null },
      { kind: "set-landing", pool: "p2", landsFor: "p1" },
    );
    expect(codes(landing, 1)).toContain("note landing-place");
    expect(predict(landing).pools[0]!.usableBytes).toBe(predict(clinic).pools[0]!.usableBytes);
    expect(after(landing, { kind: "take-apart", group: "g1" }).pools[0]!.landsFor).toBeUndefined();
    expect(applyCommand(landing, { kind: "set-landing", pool: "p2", landsFor: "p2" }).ok).toBe(false);
  });
  test("a spare of one group is measured by that group alone", () => {
    const two = after(clinic, { kind: "change-box", bays: 8 }, added(1, 1, 2), {
      kind: "make-group",
      drives: ["d6", "d7"],
      layout: "raid1",
      pool: "p1",
    });
    expect(codes(after(two, { kind: "set-spare", pool: "p1", group: "g2", drives: ["d8"] }))).not.toContain(
      "block spare-too-small",
    );
    expect(codes(after(two, { kind: "set-spare", pool: "p1", group: "g1", drives: ["d8"] }))).toContain(
      "block spare-too-small",
    );
  });
});

describe("box rules", () => {
  test("the effect of a rule is the difference of two predictions", () => {
    // 10 GiB back on each of the three drives' worth of data.
    expect(ruleEffect(clinic, { systemReserveBytes: 0 })).toMatchObject({
      usableBytes: 3 * 10 * 2 ** 30,
      come: [],
      go: [],
    });
    expect(ruleEffect(clinic, { layouts: ["raid1"] }).come.map((finding) => finding.code)).toEqual([
      "layout-not-offered",
    ]);
    expect(ruleEffect(clinic, { poolReserveShare: 1 / 32 }).usableBytes).toBe(
      -Math.ceil(predict(clinic).pools[0]!.usableBytes / 32),
    );
  });

  test.each(ruleSets.map((set) => [set.id, set]))(
    "%s is a valid choice, and its own rules are valid overrides",
    (_, set) => {
      const plan: Plan = { ...clinic, box: { ...clinic.box, rules: { set: set.id, overrides: set.rules } } };
      expect(checkPlan(structuredClone(plan))).toEqual({ ok: true, plan });
    },
  );

  test("each rule says what it means for the plan", () => {
    const plain = (text: string | null) => text?.replaceAll("\u00a0", " ");
    expect(plain(ruleConsequence(clinic, "joining", "TB"))).toBe("A drive needs at least 12.00 TB to join Images.");
    expect(plain(ruleConsequence(clinic, "widening", "TB"))).toBe(
      "Images can take one drive at a time; 2 bays are free.",
    );
    expect(plain(ruleConsequence(clinic, "hotSpares", "TB"))).toBe("Images has no spare.");
    expect(plain(ruleConsequence(clinic, "rebuilding", "TB"))).toMatch(/about 25 hours/);
    fc.assert(
      fc.property(
        anyPlan,
        fc.constantFrom(
          "joining" as const,
          "widening" as const,
          "rebuilding" as const,
          "replacing" as const,
          "growing" as const,
        ),
        (plan, rule) => void ruleConsequence(plan, rule, "TiB"),
      ),
    );
  });
});
