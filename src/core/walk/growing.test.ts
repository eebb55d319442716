import { applyCommand } from "../commands/applyCommand";
import { brokenSteps } from "../commands/brokenSteps";
import type { Plan } from "../document/plan";
import { checkPlan } from "../document/readPlan";
import { growingClinic } from "../document/samples/growingClinic";
import { rulesOf } from "../rules/ruleSets";
import { stepsOfAct, usualChoices, type Act } from "../steps/propose";
import { changesBetween } from "./bandChanges";
import { erasedDrives } from "./erasedDrives";
import { besidesExposure, exposedWords } from "./exposedWords";
import { exposedHours, planSummary } from "./planSummary";
import { walkPlan } from "./walkPlan";

const plain = (lines: readonly string[]) => lines.map((line) => line.replaceAll("\u00a0", " "));

test("the growing clinic in words, by hand", () => {
  expect(checkPlan(structuredClone(growingClinic)).ok).toBe(true);
  const made = walkPlan(growingClinic);
  expect(made.moments.every((moment) => moment.walked === null || moment.walked.done)).toBe(true);
  // Each is filled with 4 TB less 10 GiB at 0.6 × 150 MB/s, the rate of the 8 TB drive that takes part: 12.3 h. What
  // comes after bares nothing: the bands that it joins are rewritten, and new ones filled.
  expect(exposedHours(made, 0)).toBeCloseTo(2 * 12.3, 0);
  const [first, second, third] = plain(planSummary(made));
  // 9.4 TB at 117 MB/s, two tests of 12 TB at 133 MB/s, 12 TB at 0.8 × 190 MB/s, twice 0.1 h: 94.6 h. The first drive:
  // 12.3 h, 4 TB of the band above at 0.33 × 150, 4 TB of a new one at 0.6 × 190 MB/s: 44.5 h. The second: 12.3 h, and
  // both bands above, 8 TB at 0.33 × 190 MB/s: 47.8 h.
  expect(made.moments.at(-1)!.walked!.to).toBeCloseTo(94.6 + 44.5 + 47.8, 0);
  expect(first).toBe("Eight steps over about 7.8 days.");
  // 15.9 and 31.97 TB less half a per cent for the file system's own; after the second drive, at 164.7 h.
  expect(second).toBe("Space for your files: 15.82 TB → 31.81 TB, all of it on day 7.");
  expect(third).toBe("For about 25 hours in all, one more failed drive would lose data.");
  const replacing = made.moments[3]!.walked!;
  expect(exposedWords(replacing.exposure[0]!, replacing.cost.hours.expected)).toBe(
    "until the new drive is filled, in about 12 hours, one more failed drive would lose data",
  );
  expect(besidesExposure(replacing)).toEqual(replacing.findings.filter(({ code }) => code !== "no-redundancy"));
  // Drives that are still to be bought hold nothing that could be erased.
  expect(erasedDrives(made)).toEqual([]);
});

test("a plan without steps, and one whose steps cannot be carried out, say so", () => {
  expect(planSummary(walkPlan({ ...growingClinic, steps: [] }))).toEqual(["No step is planned."]);
  const blocked: Plan = { ...growingClinic, steps: [{ id: "s1", kind: "claim-space", group: "nowhere" }] };
  expect(planSummary(walkPlan(blocked)).at(-1)).toBe("One step cannot be carried out as planned.");
});

test("which bands grow, run wider, go", () => {
  const { moments } = walkPlan(growingClinic);
  const at = (n: number) =>
    changesBetween(moments[n - 1]!.state.plan, moments[n]!.state.plan).map(({ kind, index }) => `${kind} ${index}`);
  // 4 + 4 + 8 + 12 with the first 4 changed for 12: the lowest stays, 8 runs over three, and 12 comes over two.
  expect(at(3)).toEqual(["wider 1", "new 2"]);
  // Then the second: no drive ends at 4 TB any more, and the bands stay cut where they are.
  expect(at(5)).toEqual(["wider 1", "wider 2"]);
  expect(at(1)).toEqual([]);
});

test("acts become the steps that the box wants, and each of them can be carried out", () => {
  const plan: Plan = { ...growingClinic, steps: [] };
  const rules = rulesOf(plan.box.rules);
  const kinds = (act: Act, more = {}) =>
    stepsOfAct(act, { ...usualChoices(act, plan, rules), ...more }, plan, rules).map((step) => step.kind);
  const replace: Act = { kind: "replace", drive: "d1", by: "b1" };
  expect(kinds(replace)).toEqual(["replace-drive", "grow-volume", "grow-file-system"]);
  expect(kinds(replace, { test: true, backUp: true, grow: false })).toEqual(["test-drive", "back-up", "replace-drive"]);
  expect(kinds({ kind: "join", group: "g1", drives: ["b1", "b2"] })).toEqual([
    "back-up",
    "widen-group",
    "widen-group",
    "grow-volume",
    "grow-file-system",
  ]);
  expect(kinds({ kind: "join", group: "g1", drives: ["b1"] }, { as: "spare" })).toEqual(["back-up", "set-spare"]);
  expect(kinds({ kind: "level", group: "g1", layout: "hybrid-2", drives: ["b1"] })).toEqual([
    "back-up",
    "change-level",
    "grow-volume",
    "grow-file-system",
  ]);
  for (const act of [replace, { kind: "join", group: "g1", drives: ["b1", "b2"] } as Act]) {
    const steps = stepsOfAct(act, usualChoices(act, plan, rules), plan, rules);
    const made = applyCommand(plan, { kind: "insert-steps", steps });
    if (!made.ok) throw new Error(made.reason);
    expect(
      walkPlan(made.plan)
        .moments.slice(1)
        .map((moment) => moment.walked!.done),
    ).toEqual(steps.map(() => true));
  }
});

test("what a change of the box breaks is named, with the reason", () => {
  const broken = brokenSteps(growingClinic, { kind: "remove-drives", drives: ["b2"] });
  expect(broken.map(({ before, after }) => [before.step.id, after.findings[0]!.code])).toEqual([
    ["s4", "no-such-drive"],
    ["s5", "no-such-drive"],
  ]);
  expect(brokenSteps(growingClinic, { kind: "rename-plan", name: "x" })).toEqual([]);
});
