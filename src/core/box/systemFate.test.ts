import type { Plan, RuleOf } from "../document/plan";
import { clinic } from "../document/samples/clinic";
import { checkContents } from "../drives/checks/contents";
import { predict } from "../prediction/predict";
import { ruleConsequence } from "../ruleBook/ruleConsequence";
import { testDrive } from "../testing/arbitraries";
import { systemFate } from "./systemFate";

const disk = testDrive("s", 120e9, { contents: { kind: "system" }, serial: "SYS-1", place: { bay: 5 } });
const withSystem = (system: RuleOf<"system">): Plan => ({
  ...clinic,
  box: { ...clinic.box, rules: { set: "hybrid-box", overrides: { system } } },
  drives: [...clinic.drives, disk],
});

describe("where a box keeps its system", () => {
  test("on a drive of its own its death stops the box, and nothing else does", () => {
    const rules = { system: "own-drive" } as const;
    expect(systemFate(withSystem("own-drive"), new Set(["s"]), rules)).toBe("gone");
    expect(systemFate(withSystem("own-drive"), new Set(["d1", "d2", "d3", "d4"]), rules)).toBe("runs");
    expect(systemFate(clinic, new Set(["d1"]), rules)).toBe("unknown");
  });
  test("on all drives it runs as long as one of them does; the shelf does not count", () => {
    const rules = { system: "on-all-drives" } as const;
    expect(systemFate(clinic, new Set(), rules)).toBe("runs");
    expect(systemFate(clinic, new Set(["d1", "d2"]), rules)).toBe("runs");
    expect(systemFate(clinic, new Set(["d1", "d2", "d3"]), rules)).toBe("one-copy");
    expect(systemFate(clinic, new Set(["d1", "d2", "d3", "d4"]), rules)).toBe("gone");
  });
  test("a drive that carries it may join only where all of them do", () => {
    expect(checkContents(disk, { system: "own-drive" }).map((finding) => [finding.severity, finding.code])).toEqual([
      ["block", "system-drive"],
    ]);
    expect(checkContents(disk, { system: "on-all-drives" }).map((finding) => finding.severity)).toEqual(["warn"]);
    // What was read from a running box of that kind is no reason against its own pool.
    const read = (system: RuleOf<"system">): Plan => ({
      ...withSystem(system),
      drives: clinic.drives.map((drive) => ({ ...drive, contents: { kind: "system" } })),
    });
    const codes = (plan: Plan) => predict(plan).pools[0]!.findings.map((finding) => finding.code);
    expect(codes(read("own-drive"))).toContain("system-drive");
    expect(codes(read("on-all-drives"))).not.toContain("system-drive");
  });
  test("what it means is said of the plan at hand", () => {
    expect(ruleConsequence(withSystem("own-drive"), "system", "TB")).toMatch(
      /^It is on the 120\sGB drive in bay 5 \(serial SYS-1\): if that fails, the pools stay whole/,
    );
    expect(ruleConsequence(clinic, "system", "TB")).toMatch(
      /^42\.9\d?\sGB of the 4 drives of Images are kept for it\. The box runs/,
    );
    expect(
      ruleConsequence({ ...clinic, box: { ...clinic.box, rules: { set: "classic-raid" } } }, "system", "TB"),
    ).toMatch(/^No drive of the plan carries it/);
  });
});
