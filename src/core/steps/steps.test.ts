import { GiB, MiB } from "../bytes/bytes";
import { applyCommand } from "../commands/applyCommand";
import type { LayoutId, Plan, StepBody } from "../document/plan";
import { drivesOfTB } from "../testing/arbitraries";
import { boxWith } from "../testing/boxWith";
import { attach, claim, level, parityChanged, pull, rebalance, widen } from "../testing/stepsInShort";
import type { Walk } from "../walk/moment";
import { rulesOf } from "../rules/ruleSets";
import { walkPlan } from "../walk/walkPlan";

const withSteps = (plan: Plan, ...steps: StepBody[]): Walk =>
  walkPlan({ ...plan, steps: steps.map((step, i) => ({ ...step, id: `s${i + 1}` }) as Plan["steps"][number]) });
const TB = (bytes: number) => Math.round(bytes / 1e11) / 10;
const usable = (made: Walk) => made.moments.map((moment) => TB(moment.capacities.pool));
const codes = (made: Walk, at: number) => made.moments[at]!.walked!.findings.map((finding) => finding.code);
const replaceAll = (n: number): StepBody[] => Array.from({ length: n }, (_, i) => pull(`d${i + 1}`, `x${i + 1}`));

describe("one by one", () => {
  test("single parity gains nothing until all are larger and claimed; then everything at once", () => {
    const plan = boxWith("classic-raid", "raid5", [4, 4, 4], [8, 8, 8]);
    const made = withSteps(plan, ...replaceAll(3), claim());
    expect(usable(made)).toEqual([8, 8, 8, 8, 16]);
    expect(made.moments.slice(1, 4).map((moment) => moment.walked!.exposure)).toEqual(
      Array(3).fill([{ pool: "p1", redundancy: 0, usual: 1 }]),
    );
    // 4 TB at 0.6 × 150 MB/s each.
    expect(made.moments[1]!.walked!.cost.hours.expected).toBeCloseTo(12.3, 1);
    expect(
      made.moments[4]!.state.plan.drives.filter((drive) => "shelf" in drive.place).map((drive) => drive.id),
    ).toEqual(["d1", "d2", "d3"]);
    expect(codes(withSteps(plan, ...replaceAll(3)), 3)).toContain("space-not-claimed");
  });

  test("with the old one attached nothing is exposed, where the box can", () => {
    const made = withSteps(boxWith("linux-host", "raid5", [4, 4, 4], [8]), attach("d1", "x1"));
    expect(made.moments[1]!.walked).toMatchObject({ done: true, exposure: [] });
  });

  test("a hybrid gains from the second larger drive on", () => {
    const made = withSteps(boxWith("hybrid-box", "hybrid-1", [4, 4, 4, 4], [8, 8, 8, 8]), ...replaceAll(4));
    expect(usable(made)).toEqual([12, 12, 15.9, 19.9, 23.9].map((tb) => expect.closeTo(tb, 0)));
    expect(made.moments[1]!.capacities.pool).toBe(made.moments[0]!.capacities.pool);
    expect(made.moments[2]!.capacities.pool).toBeGreaterThan(made.moments[1]!.capacities.pool);
  });
});

test("mirror, then single parity, then double parity, with a drive more each time; in one go it is split", () => {
  const plan = boxWith("classic-raid", "raid1", [4, 4], [4, 4]);
  const made = withSteps(plan, level("raid5", "x1"), level("raid6", "x2"));
  expect(usable(made)).toEqual([4, 8, 8]);
  expect(made.moments.map((moment) => moment.tolerance[0])).toEqual([1, 1, 2]);
  // The members' 4 TB at 0.33 × 150 MB/s.
  expect(made.moments[1]!.walked!.cost.hours.expected).toBeCloseTo(22.5, 0);
  const jump = withSteps(plan, level("raid6", "x1", "x2"));
  const mend = jump.moments[1]!.walked!.findings.find((finding) => finding.code === "level-jump")!.mend!;
  const mended = applyCommand(jump.plan, mend.command);
  expect(mended.ok && usable(walkPlan(mended.plan))).toEqual([4, 8, 8]);
});

describe("volumes and file systems", () => {
  const volume = { id: "v1", name: "Photos", bytes: 8_001_572_306_944, fileSystem: "ext4" as const, usedBytes: 5e12 };
  test("a pool that grows gives nothing to its volume until both grow steps are there; each forgotten one is offered", () => {
    let plan = withSteps(boxWith("classic-raid", "raid5", [4, 4, 4], [4], { volumes: [volume] }), widen("x1")).plan;
    expect(codes(walkPlan(plan), 1)).toContain("volume-not-grown");
    const mend = walkPlan(plan).moments[1]!.walked!.findings.find(
      (finding) => finding.code === "volume-not-grown",
    )!.mend!;
    const result = applyCommand(plan, mend.command);
    if (!result.ok) throw new Error(result.reason);
    plan = result.plan;
    const made = walkPlan(plan);
    expect(
      made.moments.map(({ capacities }) => [capacities.pool, capacities.volume, capacities.fileSystem].map(TB)),
    ).toEqual(
      [
        [8, 8, 7.5],
        [12, 8, 7.5],
        [12, 12, 7.5],
        [12, 12, 11.3],
      ].map((row) => row.map((tb) => expect.closeTo(tb, 0))),
    );
    expect(
      made.moments.flatMap((moment) => moment.walked?.findings ?? []).map((finding) => finding.code),
    ).not.toContain("volume-not-grown");
    const half = walkPlan({ ...plan, steps: plan.steps.slice(0, 2) });
    expect(codes(half, 2)).toContain("file-system-not-grown");
  });
  test("a size that is rounded up beyond what the pool has is refused, and the largest accepted offered", () => {
    const made = withSteps(boxWith("classic-raid", "raid5", [4, 4, 4], [4], { volumes: [volume] }), widen("x1"), {
      kind: "grow-volume",
      pool: "p1",
      volume: "v1",
      bytes: 12_002_358_460_416 + MiB,
    });
    const [finding] = made.moments[2]!.walked!.findings;
    expect(finding).toMatchObject({
      code: "more-than-the-pool-has",
      mend: { command: { kind: "edit-step", changes: { bytes: 12_002_358_460_416 } } },
    });
    const mended = applyCommand(made.plan, finding!.mend!.command);
    expect(mended.ok && walkPlan(mended.plan).moments[2]!.walked!.done).toBe(true);
  });
});

test("a data drive larger than the parity drive joins once the parity drive is changed", () => {
  const plan = boxWith("parity-drive", "parity-drive-1", [4, 4, 8], [12, 10]);
  expect(usable(withSteps(plan, parityChanged("d3", "x1"), widen("x2"), widen("d3")))).toEqual([8, 8, 18, 26]);
});

describe("facts measured on the kernel's RAID driver", () => {
  const small = (...mib: number[]) => mib.map((each) => each * MiB);
  const mib = (made: Walk) => made.moments.map((moment) => Math.round(moment.capacities.pool / MiB));
  test("replacing 3 × 400 by 1200 MiB one by one: 796 until all are there and claimed, then 2396", () => {
    const made = withSteps(
      boxWith("linux-host", "raid5", small(400, 400, 400), small(1200, 1200, 1200)),
      ...replaceAll(3),
      claim(),
    );
    expect(mib(made)).toEqual([796, 796, 796, 796, 2396].map((each) => expect.closeTo(each, -1)));
  });
  test("unequal replacements: the claim gives (n − 1) × the new smallest", () => {
    const made = withSteps(
      boxWith("linux-host", "raid5", small(400, 400, 400), small(800, 1200, 1600)),
      ...replaceAll(3),
      claim(),
    );
    expect(mib(made).at(-1)).toBeCloseTo(2 * 798, -1);
  });
  test("a claim before the last small member has gone changes nothing", () => {
    const made = withSteps(
      boxWith("linux-host", "raid5", small(400, 400, 400), small(1200, 1200)),
      ...replaceAll(2),
      claim(),
    );
    expect(new Set(mib(made)).size).toBe(1);
    expect(codes(made, 3)).toContain("claims-nothing");
  });
  test.each<[LayoutId, number]>([
    ["raid5", 3],
    ["raid6", 4],
    ["raid10", 4],
  ])("%s is widened by one or by several at once", (layout, n) => {
    const plan = boxWith("linux-host", layout, small(...Array<number>(n).fill(800)), small(800, 800));
    for (const drives of [["x1"], ["x1", "x2"]])
      expect(withSteps(plan, { kind: "widen-group", group: "g1", drives }).moments[1]!.walked!.done).toBe(true);
    expect(
      withSteps(boxWith("linux-host", layout, small(...Array<number>(n).fill(800)), small(400)), widen("x1"))
        .moments[1]!.walked!.done,
    ).toBe(false);
  });
});

describe("facts measured on a multi-device file system", () => {
  const stored = (gib: number) => ({
    volumes: [{ id: "v1", name: "V", bytes: 0, fileSystem: "btrfs" as const, usedBytes: 0 }].map((volume) => ({
      ...volume,
      bytes: gib * GiB,
      usedBytes: gib * GiB,
    })),
  });
  const gib = (made: Walk) => made.moments.map((moment) => Math.round(moment.capacities.pool / GiB));
  const sized = (...each: number[]) => each.map((size) => size * GiB);
  test("40 added to 20 + 20 with two copies, half full: 30 without a rebalance, 40 after", () => {
    const plan = boxWith("chunk-copies", "copies-2", sized(20, 20), sized(40), stored(10));
    expect(gib(withSteps(plan, widen("x1"), rebalance))).toEqual([20, 30, 40]);
  });
  test("the same, 90 % full: 22, and 40 after", () => {
    const plan = boxWith("chunk-copies", "copies-2", sized(20, 20), sized(40), stored(18));
    expect(gib(withSteps(plan, widen("x1"), rebalance))).toEqual([20, 22, 40]);
  });
  test("200 + 200 + 200 replaced one by one by 400, kept 90 % full: a little from the first, more from the second", () => {
    const plan = boxWith("chunk-copies", "copies-2", sized(200, 200, 200), sized(400, 400), stored(265));
    const made = withSteps(plan, attach("d1", "x1"), claim("x1"), attach("d2", "x2"), claim("x2"));
    // 176.7 of each are filled: 223.3, 23.3 and 23.3 are then free for pairs, and 223.3 twice; the box keeps 0.5 %.
    expect(gib(made)).toEqual([299, 299, 310, 310, 498]);
  });
  test.each<[string, StepBody[]]>([
    ["a change of layout", [level("copies-3")]],
    ["replacing a healthy drive", [attach("d1", "x1")]],
    ["filling the place of a lost one", [pull("d1", "x1")]],
    ["a rebalance after a drive was added, where only that has room", [widen("x1"), rebalance]],
  ])("on a full pool %s is refused, and works with a tenth free", (_, steps) => {
    const on = (used: number) =>
      withSteps(boxWith("chunk-copies", "copies-2", sized(200, 200, 200), sized(400, 400), stored(used))).plan;
    const last = (used: number) => withSteps(on(used), ...steps).moments.at(-1)!.walked!;
    const full = last(300);
    const finding = full.findings.find(({ code }) => code === "pool-too-full")!;
    expect([full.done, finding.severity]).toEqual([false, "block"]);
    expect(finding.message).toMatch(/^[A-Z].* Free 3\d\.\d+\sGB first, or add a drive/);
    expect(finding.mend!.command).toMatchObject({ kind: "insert-steps", steps: [{ kind: "widen-group" }] });
    // Three copies hold less: there the pool must be emptier besides.
    expect(last(steps[0]!.kind === "change-level" ? 190 : 265).findings.map(({ code }) => code)).not.toContain(
      "pool-too-full",
    );
    expect(last(271).findings.some(({ code }) => code === "pool-too-full")).toBe(steps.length === 1);
  });
  test("parity over chunks gets another width where the box changes levels in one go, and nowhere else", () => {
    const parity = { groups: [{ id: "g1", layout: "chunk-parity" as const, drives: ["d1", "d2", "d3", "d4", "d5"] }] };
    const plan = boxWith("chunk-copies", "chunk-parity", [4, 4, 4, 4, 4], [], parity);
    const width = (data: number, more: number): StepBody => ({
      kind: "change-level",
      group: "g1",
      layout: "chunk-parity",
      drives: [],
      options: { data, parity: more },
    });
    const moments = withSteps(plan, width(3, 2)).moments;
    expect(moments.map((moment) => moment.tolerance[0])).toEqual([1, 2]);
    // Two of three chunks were data, then three of five.
    expect(moments[1]!.capacities.pool / moments[0]!.capacities.pool).toBeCloseTo(3 / 5 / (2 / 3), 2);
    expect(moments[1]!.walked!.does).toMatch(/from parity over chunks 2 \+ 1 to parity over chunks 3 \+ 2\.$/);
    const refused = (steps: StepBody, on = plan) =>
      withSteps(on, steps).moments[1]!.walked!.findings.find(({ severity }) => severity === "block")?.code;
    expect(refused(width(2, 1))).toBe("same-level");
    expect(refused(width(4, 2))).toBe("wrong-drive-count");
    const slow = { set: "chunk-copies" as const, overrides: { levelChanges: "one-at-a-time" as const } };
    expect(refused(width(3, 2), { ...plan, box: { ...plan.box, rules: slow } })).toBe("no-path");
  });
  test("a box that copies only what is used copies the same bytes in a pool that has grown, and claims in minutes", () => {
    const volumes = [{ id: "v1", name: "V", bytes: 3e12, fileSystem: "ext4" as const, usedBytes: 1e12 }];
    const plan = boxWith("fixed-group", "raid1", [4, 4], [8, 8, 8], { volumes });
    const swap = (drive: string, by: string): StepBody => ({ kind: "replace-drive", drive, by, how: "pulled" });
    const claims = rulesOf(plan.box.rules).claiming === "whole-group";
    const afterwards = claims ? [claim()] : [];
    const { moments } = withSteps(plan, swap("d1", "x1"), swap("d2", "x2"), ...afterwards, swap("x1", "x3"));
    const costs = moments.slice(1).map(({ walked }) => walked!.cost);
    const written = costs.flatMap(({ work }) => work.flatMap(({ writes }) => (writes > 0 ? [writes / 1e12] : [])));
    expect(moments.at(-1)!.capacities.pool / moments[0]!.capacities.pool).toBeCloseTo(2, 2);
    expect(written).toHaveLength(3);
    for (const terabytes of written) expect(terabytes).toBeCloseTo(1, 2);
    if (claims) expect(costs[2]!.hours.expected).toBeLessThan(0.2);
  });
  test("small drives keep 4 GiB each free", () => {
    const plan = boxWith("chunk-copies", "copies-2", sized(20, 20, 20), sized(20), stored(24));
    const replaced = (used: number) =>
      withSteps(
        { ...plan, ...boxWith("chunk-copies", "copies-2", sized(20, 20, 20), sized(20), stored(used)) },
        attach("d1", "x1"),
      ).moments[1]!.walked!.done;
    expect([replaced(24), replaced(25)]).toEqual([true, false]);
  });
  test("nearly empty, each claimed: 30, 40, 50, 60", () => {
    const plan = boxWith("chunk-copies", "copies-2", sized(20, 20, 20), sized(40, 40, 40), stored(0));
    const made = withSteps(plan, ...[1, 2, 3].flatMap((n) => [attach(`d${n}`, `x${n}`), claim(`x${n}`)]));
    expect(gib(made)).toEqual([30, 30, 40, 40, 50, 50, 60]);
  });
});

test("what a later edit does not touch is taken over, not worked out again", () => {
  const plan = withSteps(boxWith("classic-raid", "raid5", [4, 4, 4], [8, 8, 8]), ...replaceAll(3), claim()).plan;
  const first = walkPlan(plan);
  const edited = applyCommand(plan, { kind: "edit-step", step: "s3", changes: { disabled: true } });
  if (!edited.ok) throw new Error(edited.reason);
  const second = walkPlan(edited.plan, "TB", first);
  expect(second.moments[2]!.state).toBe(first.moments[2]!.state);
  expect(second.moments.map((moment) => moment.capacities)).toEqual(
    walkPlan(edited.plan).moments.map((moment) => moment.capacities),
  );
});

test("a plan file with steps is read back; a step without its fields, or twice the same id, is refused", async () => {
  const { checkPlan } = await import("../document/readPlan");
  const { plan } = withSteps(
    boxWith(
      "classic-raid",
      "raid5",
      drivesOfTB(4, 4, 4).map((drive) => drive.bytes),
      [8],
    ),
    pull("d1", "x1"),
  );
  expect(checkPlan(structuredClone(plan)).ok).toBe(true);
  const broken = checkPlan({ ...structuredClone(plan), steps: [{ id: "s1", kind: "replace-drive", drive: "d1" }] });
  expect(!broken.ok && broken.problems.map((problem) => problem.message)).toContain('The field "by" is missing.');
  const twice = checkPlan({ ...structuredClone(plan), steps: [...plan.steps, ...plan.steps] });
  expect(!twice.ok && twice.problems[0]!.code).toBe("duplicate-id");
});
