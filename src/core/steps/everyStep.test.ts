import { readFileSync } from "node:fs";
import type { LayoutId, Plan, Pool, RuleSetId, StepBody } from "../document/plan";
import { numbered } from "../testing/anySteps";
import { testDrive } from "../testing/arbitraries";
import { boxWith, withDrive } from "../testing/boxWith";
import { rulesOf } from "../rules/ruleSets";
import { walkPlan } from "../walk/walkPlan";
import { attentionOf } from "./attention";
import { stepModules } from "./registry";
import { stepLabel } from "./stepLabel";

// One line for each kind of step on each sort of pool, worked out by hand: a hard disk of 3 to 8 TB makes 150 MB/s, one
// of 10 TB and more 190 MB/s; a rebuild goes at 0.6 of that, a rewrite at 0.33, a scrub at 0.8, a self-test at 0.7.

const boxed = (set: RuleSetId, layout: LayoutId, tb: number[], shelf: number[], more: Partial<Pool> = {}): Plan => {
  const volume = { id: "v1", name: "V", bytes: 4e12, fileSystem: "ext4" as const, usedBytes: 2e12 };
  const plan = boxWith(set, layout, tb, shelf, { volumes: [volume], ...more });
  const held = testDrive("h1", 4_000_787_030_016, { contents: { kind: "data" } });
  const backup = { everyDays: 7, keepsVersions: false, dataSets: [] };
  return {
    ...plan,
    drives: [...plan.drives, held],
    backups: [
      { id: "b1", name: "Stick", kind: "usb-drive", place: "here", ...backup },
      { id: "b2", name: "Line", kind: "service", place: "elsewhere", ...backup },
    ],
  };
};
const BOXES = {
  classic: boxed("classic-raid", "raid5", [4, 4, 4], [4, 8, 4, 4]),
  linux: boxed("linux-host", "raid5", [4, 4, 4], [4, 8, 4, 4]),
  "linux 4 8 8": boxed("linux-host", "raid5", [4, 8, 8], [8]),
  "linux stripe": boxed("linux-host", "raid0", [4, 4], [4, 4]),
  "linux mirrors": boxed("linux-host", "raid10", [4, 4, 4, 4], []),
  hybrid: boxed("hybrid-box", "hybrid-1", [4, 4, 8], [8, 12, 12]),
  mirror: boxed("classic-raid", "raid1", [4, 4, 8], [8]),
  separate: boxed("linux-host", "single", [4], [8]),
  "two separate": boxed("linux-host", "single", [4, 4], [8]),
  parity: boxed("parity-drive", "parity-drive-1", [4, 4, 8], [8, 12]),
  scheduled: boxed("scheduled-parity", "parity-drive-1", [4, 4, 8], [8, 12]),
  chunks: boxed("chunk-copies", "copies-2", [4, 4, 8], [8]),
};

const gone = (plan: Plan, ...ids: string[]): Plan =>
  ids.reduce((then, id) => withDrive(then, id, { state: "failed" }), plan);
const LACKING = {
  "classic, d1 failed": gone(BOXES.classic, "d1"),
  "mirror, d2 missing": withDrive(BOXES.mirror, "d2", { state: "missing", place: { shelf: true }, lastBay: 2 }),
  "spared, d1 failed": withDrive(
    gone(boxed("hybrid-box", "hybrid-1", [4, 4, 8], [4], { spares: ["x1"] }), "d1"),
    "x1",
    { place: { bay: 4 } },
  ),
  "parity, d3 failed": gone(BOXES.parity, "d3"),
  "scheduled, d1 failed": gone(BOXES.scheduled, "d1"),
  "chunks, d1 failed": gone(boxed("chunk-copies", "copies-2", [4, 4, 8, 8], []), "d1"),
  "separate, d2 failed": gone(BOXES["two separate"], "d2"),
  "stripe, d1 failed": gone(BOXES["linux stripe"], "d1"),
};

const ALL = { ...BOXES, ...LACKING };

/** What the last of some steps is called, says, takes and leaves. */
function told(plan: Plan, steps: StepBody[]): string[] {
  const { moments } = walkPlan(numbered(plan, steps));
  const [before, after] = [moments.at(-2)!, moments.at(-1)!];
  const walked = after.walked!;
  const { step, cost, does, done, findings } = walked;
  if (!done) return [does, `blocked: ${findings.filter((each) => each.severity === "block").map((each) => each.code)}`];
  const tb = (bytes: number) => (bytes / 1e12).toFixed(1);
  const work = cost.work.map((each) => `${each.drive} ${tb(each.reads)}/${tb(each.writes)}`);
  const places = after.state.plan.drives.flatMap((drive, i) => {
    const was = before.state.plan.drives[i]!;
    const where = "bay" in drive.place ? `bay ${drive.place.bay}` : "shelf";
    return JSON.stringify(was) === JSON.stringify(drive) ? [] : [`${drive.id} ${where}`];
  });
  const { pool, volume, fileSystem } = after.capacities;
  return [
    does,
    [
      stepLabel(step, before.state.plan, "TB"),
      `${cost.hours.expected.toFixed(1)} h`,
      cost.online,
      ...(cost.offline.expected > 0 ? [`away ${cost.offline.expected.toFixed(2)} h`] : []),
      ...walked.exposure.map((each) => `${each.redundancy} of ${each.usual} survived`),
      ...work,
    ].join(", "),
    [
      cost.undoable ? "can be undone" : "no way back",
      ...(cost.erased.length > 0 ? [`erases ${cost.erased}`] : []),
      ...(cost.missing.length > 0 ? [`without ${cost.missing}`] : []),
      `at the ${attentionOf(step, before.state.plan, after.state.plan)}`,
      ...places,
      `${tb(before.capacities.pool)} > ${tb(pool)} ${tb(volume)} ${tb(fileSystem)}`,
    ].join(", "),
  ].map((line) => line.replace(/\u00a0/g, " "));
}

/** A box, the steps, and after "=" what the last of them says, takes and leaves. */
const TOLD = readFileSync("src/core/steps/everyStep.txt", "utf8");
const CASES = TOLD.trim()
  .split("\n\n")
  .map((paragraph) => {
    const [box = "", ...lines] = paragraph.split("\n");
    const steps = lines.filter((line) => line.startsWith("{")).map((line) => JSON.parse(line) as StepBody);
    const expected = lines.filter((line) => !line.startsWith("{")).map((line) => line.slice(2));
    return [box.slice(0, -1) as keyof typeof ALL, steps, expected] as const;
  });

test.each(CASES)("on %s: %j", (box, steps, expected) => {
  expect(told(ALL[box], steps)).toEqual(expected);
});

test("every kind of step is among them", () => {
  const tried = new Set(CASES.map(([, steps]) => steps.at(-1)!.kind));
  expect([...tried].sort()).toEqual(Object.keys(stepModules).sort());
});

test("what menus offer, on each sort of pool", () => {
  const offers = (plan: Plan, under: "pool" | "drives") =>
    Object.values(stepModules).flatMap(({ menu }) => {
      const setting = { plan, rules: rulesOf(plan.box.rules), unit: "TB" as const };
      if (menu.under !== under) return [];
      return menu.under === "pool"
        ? menu.offers(plan.pools[0]!, setting)
        : menu.under === "drives"
          ? menu.offers(setting)
          : [];
    });
  const labels = (plan: Plan, under: "pool" | "drives") =>
    offers(plan, under).map(
      (offer) => `${offer.label.replace(/\u00a0/g, " ")} (${offer.steps.map((step) => step.kind)})`,
    );
  const grow = ["Grow V (grow-volume)", "Grow the file system of V (grow-file-system)"];
  const always = ["Back up (back-up)", "Check (scrub) (verify)"];
  expect(labels(BOXES.linux, "pool").sort()).toEqual(
    [
      ...grow,
      ...always,
      "Use the new space of larger drives (claim-space)",
      "Shrink V by a hundredth (shrink-volume)",
    ].sort(),
  );
  expect(labels(BOXES.classic, "pool")).not.toContain("Shrink V by a hundredth (shrink-volume)");
  expect(labels(BOXES.scheduled, "pool")).toContain("Update the parity (update-parity)");
  expect(labels(BOXES.parity, "pool")).not.toContain("Update the parity (update-parity)");
  expect(labels(BOXES.chunks, "pool")).toContain("Rebalance (rebalance)");
  expect(labels(BOXES.linux, "pool")).not.toContain("Rebalance (rebalance)");
  // Of the drives: what lies free can be tested and wiped, and the one with data mirrored on the least that does.
  const drives = labels(BOXES.linux, "drives");
  expect(drives).toContain("Mirror 4 TB with its data on 4 TB (mirror-drive)");
  expect(drives.filter((label) => label.endsWith("(wipe-drive)"))).toHaveLength(5);
  expect(drives.filter((label) => label.endsWith("(test-drive)")).length).toBeGreaterThanOrEqual(5);
  const raw = { ...BOXES.linux, pools: [{ ...BOXES.linux.pools[0]!, volumes: [] }] };
  expect(labels(raw, "pool").sort()).toEqual([...always, "Use the new space of larger drives (claim-space)"].sort());
});
