import fc from "fast-check";
import type { Drive, LayoutId, Plan, StepBody } from "@/core/document/plan";
import type { Finding } from "@/core/findings/finding";
import { layouts } from "@/core/layouts/registry";
import { rulesOf, ruleSets } from "@/core/rules/ruleSets";
import { type Act, newDrives, poolOfAct, stepsOfAct, usualChoices } from "@/core/steps/propose";
import { stepModules } from "@/core/steps/registry";
import { anyStepOn, numbered } from "@/core/testing/anySteps";
import { boxWith } from "@/core/testing/boxWith";
import { DAY } from "@/core/testing/dataPlan";
import { walkPlan } from "@/core/walk/walkPlan";
import { actTrial, editTrial } from "./actTrial";
import { actTitle, trialWords } from "./actWords";

const plan = boxWith("classic-raid", "raid5", [4, 4, 4], [4, 8]);
const replace: StepBody = { kind: "replace-drive", drive: "d1", by: "x1", how: "pulled" };
const widen: StepBody = { kind: "widen-group", group: "g1", drives: ["x2"] };
const tried = (steps: StepBody[], planned: StepBody[] = [], at = 0) =>
  actTrial(walkPlan(numbered(plan, planned)), at, steps, "TB", DAY);

test("what steps come to is the difference that they make at their moment of the plan", () => {
  const one = tried([widen]);
  expect(one.after - one.before).toBeGreaterThan(3.9e12);
  expect(one.blocks).toEqual([]);
  expect(trialWords(one, "TB")).toMatch(/^1 step, about .*\. Usable 8\.00\sTB → 12\.00\sTB\.$/);
  // Without a backup before it a rewrite is to be heeded, before it is planned.
  expect(one.warnings).toEqual([expect.stringMatching(/^Widening rewrites all that is stored/)]);
  expect(tried([{ kind: "back-up", pool: "p1", to: "b" }, widen]).warnings).toEqual([]);
  const later = tried([replace], [widen], 1);
  expect(later.before).toBe(one.after);
  expect(trialWords(later, "TB")).toMatch(
    /^1 step, .*\. Usable stays; for .*, one more failed drive would lose data\.$/,
  );
  expect(later.hours).toBeGreaterThan(0);
});

test("what stands against it is said instead, and a way that would do is offered with its steps in place", () => {
  const against = tried([{ ...widen, drives: ["d2"] }]);
  expect(against.blocks.length).toBeGreaterThan(0);
  expect(trialWords(against, "TB")).toBe(against.blocks[0]!.message);
  expect(against.instead).toBeNull();
  const stripe = boxWith("classic-raid", "raid1", [4, 4], [4, 4]);
  const level: StepBody = { kind: "change-level", group: "g1", layout: "raid6", drives: ["x1", "x2"] };
  const verify: StepBody = { kind: "verify", pool: "p1" };
  const split = actTrial(walkPlan(stripe), 0, [verify, level, verify], "TB", DAY);
  expect(split.instead?.steps.map((step) => step.kind)).toEqual(["verify", "change-level", "change-level", "verify"]);
  expect(split.instead?.label).toMatch(/^Split it/);
});

test("how often the box is off to change drives is said with it", () => {
  const mirror = boxWith("desktop-mirror", "raid1", [4, 4], [8, 8]);
  const both: StepBody[] = [replace, { ...replace, drive: "d2", by: "x2" }];
  expect(trialWords(actTrial(walkPlan(mirror), 0, both, "TB", DAY), "TB")).toMatch(
    /one more failed drive would lose data; the box is off for about 15 minutes, twice\.$/,
  );
});

test("no steps come to nothing", () => {
  expect(tried([])).toMatchObject({ hours: 0, bareHours: 0, blocks: [], instead: null });
});

test("an act is called by what it does to which drives", () => {
  expect(actTitle({ kind: "replace", drive: "d1", by: "x2" }, plan, "TB")).toMatch(
    /^Replace the 4\sTB .* by the 8\sTB /,
  );
  expect(actTitle({ kind: "join", group: "g1", drives: ["x1", "x2"] }, plan, "TB")).toMatch(/^4\sTB \+ 8\sTB for P$/);
  expect(actTitle({ kind: "pull", drive: "gone" }, plan, "TB")).toBe("Remove a drive for good");
});

describe("every finding that a step can have is said before it is planned", () => {
  const kinds = new Set<string>();
  const setOf = (id: LayoutId) => ruleSets.find(({ rules }) => rules.layouts.includes(id))!.id;
  test.each(layouts.map((layout) => [layout.id, layout] as const))("on %s, whatever the step", (id, layout) => {
    const sizes = Array.from({ length: Math.max(4, layout.usualDrives) }, (_, i) => (i === 3 ? 8 : 4));
    const made = boxWith(setOf(id), id, sizes, [4, 8, 12, 2], {
      volumes: [{ id: "v1", name: "V", bytes: 2e12, fileSystem: "ext4", usedBytes: 1e12 }],
    });
    const worn: Partial<Drive>[] = [
      { contents: { kind: "data" } },
      { health: { state: "watch", pendingSectors: 3 } },
      { bus: "usb", logicalSector: 4096 },
      { medium: "ssd", shingled: true },
    ];
    const box: Plan = {
      ...made,
      drives: made.drives.map((drive) => ({ ...drive, ...(/^x/.test(drive.id) ? worn[Number(drive.id[1]) - 1] : {}) })),
    };
    const whole = walkPlan(box, "TB", undefined, DAY);
    for (const step of fc.sample(anyStepOn(box), { numRuns: 90, seed: layouts.indexOf(layout) })) {
      kinds.add(step.kind);
      const planned = walkPlan(numbered(box, [step]), "TB", undefined, DAY).moments.at(-1)!.walked!;
      const trial = actTrial(whole, 0, [step], "TB", DAY);
      const shown = [...trial.blocks.map(({ message }) => message), ...trial.warnings, ...trial.notes];
      // That one more failed drive would lose data is said with the hours for which that is so.
      const isSaid = ({ code, message }: Finding) =>
        shown.includes(message) || (code === "no-redundancy" && (trial.bareHours > 0 || trial.blocks.length > 0));
      expect([step, planned.findings.filter((finding) => !isSaid(finding))]).toEqual([step, []]);
    }
  });
  test("and every kind was among them", () =>
    expect(Object.keys(stepModules).filter((kind) => !kinds.has(kind))).toEqual([]));

  test("what an edit would make of a step is said before it is saved", () => {
    const worn = {
      ...plan,
      drives: plan.drives.map((drive) => (drive.id === "x2" ? { ...drive, bus: "usb" as const } : drive)),
    };
    const whole = walkPlan(numbered(worn, [replace]), "TB", undefined, DAY);
    expect(editTrial(whole, "s1", { by: "x2" }, DAY).blocks.map(({ code }) => code)).toContain("usb-member");
    expect(editTrial(whole, "s1", {}, DAY).blocks).toEqual([]);
  });
});

test("steps chosen as such are tested and backed up before as any act is", () => {
  const steps: StepBody[] = [{ kind: "set-spare", pool: "p1", drive: "x1" }];
  const act: Act = { kind: "steps", title: "A spare", steps };
  const rules = rulesOf(plan.box.rules);
  const choices = usualChoices(act, plan, rules);
  expect([actTitle(act, plan, "TB"), newDrives(act), poolOfAct(act, plan)?.id]).toEqual(["A spare", ["x1"], "p1"]);
  expect(stepsOfAct(act, choices, plan, rules)).toEqual(steps);
  expect(stepsOfAct(act, { ...choices, test: true, backUp: true }, plan, rules).map(({ kind }) => kind)).toEqual([
    "test-drive",
    "back-up",
    "set-spare",
  ]);
  const own: Act = { ...act, steps: [{ kind: "test-drive", drive: "x1" }] };
  expect([newDrives(own), poolOfAct(own, plan)]).toEqual([[], undefined]);
});
