import { applyCommand } from "../commands/applyCommand";
import { coveredClinic } from "../document/samples/coveredClinic";
import type { Plan, PlanCalendar } from "../document/plan";
import { pointOf } from "../chance/inputs";
import { chancesAt, prepareChances } from "../chance/planChances";
import { walkPlan } from "../walk/walkPlan";
import { boxWith, withRules } from "../testing/boxWith";
import { type Help, type HelpKind, whatHelps } from "./whatHelps";

const DAY = "2026-11-27";
const setting = { family: "TB", day: DAY } as const;
const calendar: PlanCalendar = coveredClinic.calendar!;
const of = (plan: Plan) => {
  const { before, helps } = whatHelps(plan, setting, calendar);
  return { before, helps, find: (kind: HelpKind): Help | undefined => helps.find((help) => help.kind === kind) };
};
const near = (value: number | undefined, target: number, share: number) =>
  expect(Math.abs((value ?? NaN) / target - 1)).toBeLessThan(share);

const never: Plan = { ...boxWith("classic-raid", "raid5", [12, 12, 12, 12]), chance: { scrubHours: 35_064 } };

test("four large drives that are never checked: what each change saves of 1,000, the best first", () => {
  const { before, helps, find } = of(never);
  near(1000 * before, 120, 0.02);
  near(1000 * find("backup-elsewhere")!.saves, 115, 0.02);
  // Once it is there it saves 21; on the way a power cut takes back what of these it may.
  const double = find("second-parity")!;
  const changed = applyCommand(never, double.command!);
  const way = changed.ok ? chancesAt(prepareChances(walkPlan(changed.plan), []), pointOf({})).along.any : NaN;
  expect(way).toBeGreaterThan(0.003);
  near(1000 * (double.saves + way), 21, 0.05);
  near(1000 * find("scrub")!.saves, 18, 0.1);
  near(1000 * find("spare")!.saves, 0.2, 0.5);
  expect(helps.map(({ saves }) => saves)).toEqual(helps.map(({ saves }) => saves).sort((a, b) => b - a));
  // Nobody can put a backup of what is not named into the plan; all others are a press.
  expect(helps.filter(({ command }) => command === null).map(({ kind }) => kind)).toEqual(["backup-elsewhere"]);
});

test("what is said of a change is what the plan comes to with it", () => {
  const { before, helps } = of(coveredClinic);
  expect(helps.length).toBeGreaterThan(2);
  for (const help of helps) {
    if (!help.command) continue;
    const result = applyCommand(coveredClinic, help.command);
    expect(result.ok).toBe(true);
    if (result.ok) expect(of(result.plan).before).toBeCloseTo(help.after, 12);
    expect(help.saves).toBeCloseTo(before - help.after, 12);
  }
});

test("a drive that would be pulled is better copied with the old one in its bay, where the box can", () => {
  const box = boxWith("classic-raid", "raid5", [4, 4, 4, 4], [12]);
  const steps: Plan["steps"] = [{ id: "s1", kind: "replace-drive", drive: "d1", by: "x1", how: "pulled" }];
  const stored = { dataSets: [{ id: "s1", name: "All", volume: "v1", bytes: 1e12, worth: "useful" as const }] };
  const volumes = [{ id: "v1", name: "V", bytes: 3e12, fileSystem: "ext4" as const }];
  const plan = { ...box, pools: [{ ...box.pools[0]!, volumes }], steps, ...stored };
  expect(of(plan).find("attached")).toBeUndefined();
  const able = of(withRules(plan, { replacing: "old-attached" })).find("attached");
  expect(able).toMatchObject({ step: "s1", command: { kind: "edit-step", changes: { how: "attached" } } });
  // All is stored in one place: a backup that is put into the plan keeps all of it.
  const backup = of(plan).find("backup-elsewhere")!;
  expect(backup.command).toMatchObject({ kind: "put-backup", backup: { dataSets: ["s1"], lastVerified: DAY } });
});

test("alerts, a battery supply and a drive on the shelf are offered where they are missing, and then no more", () => {
  const box = { ...boxWith("classic-raid", "raid5", [8, 8, 8, 8], [8]), chance: { alerts: false } };
  const steps: Plan["steps"] = [{ id: "s1", kind: "change-level", group: "g1", layout: "raid6", drives: ["x1"] }];
  const cases: [HelpKind, Plan][] = [
    ["ups", { ...box, steps }],
    ["alerts", box],
    ["shelf", box],
  ];
  for (const [kind, plan] of cases) {
    const result = applyCommand(plan, of(plan).find(kind)!.command!);
    expect(result.ok && of(result.plan).find(kind)).toBeUndefined();
  }
  expect(of({ ...box, steps }).find("ups")!.saves).toBeGreaterThan(3e-3);
});
