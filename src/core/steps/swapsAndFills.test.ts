import type { BoxRules, Plan, StepBody } from "../document/plan";
import { rulesOf } from "../rules/ruleSets";
import { numbered } from "../testing/anySteps";
import { boxWith, withRules } from "../testing/boxWith";
import { attach, create, parityChanged, pull } from "../testing/stepsInShort";
import { walkPlan } from "../walk/walkPlan";
import { onlineWords, swapWords } from "./swapping";

const walked = (plan: Plan, ...steps: StepBody[]) =>
  walkPlan(numbered(plan, steps)).moments.flatMap(({ walked: each }) => each ?? []);
const rounded = ({ low, expected, high }: { low: number; expected: number; high: number }) =>
  [low, expected, high].map((each) => each.toFixed(2));

describe("only the swap is offline", () => {
  const plan = boxWith("desktop-mirror", "raid1", [4, 4], [4, 4]);

  test("15 minutes, then the rebuild goes on online, slower: 4 TB at 0.6 of 150 MB/s", () => {
    const [{ cost } = { cost: null }] = walked(plan, pull("d1", "x1"));
    expect(cost).toMatchObject({ online: "slower", swaps: 1 });
    expect(rounded(cost!.offline)).toEqual(["0.16", "0.25", "0.40"]);
    expect(cost!.hours.expected).toBeCloseTo(12.33 + 0.25, 1);
    expect(onlineWords(cost!, rulesOf(plan.box.rules))).toBe(
      "the box is off for about 15 minutes, then online, slower",
    );
  });
  test("the minutes are the box's own; while it runs there are none", () => {
    const [slow] = walked(withRules(plan, { swapMinutes: 40 }), pull("d1", "x1"));
    expect(slow!.cost.offline.expected).toBeCloseTo(40 / 60, 9);
    const [hot] = walked(withRules(plan, { swapping: "hot-swap", swapMinutes: 40 }), pull("d1", "x1"));
    expect(hot!.cost).toMatchObject({ swaps: 0, offline: { low: 0, expected: 0, high: 0 } });
    expect(onlineWords(hot!.cost, rulesOf({ set: "linux-host" }))).toBe("online, slower");
  });
  test("with the old one attached drives are changed twice, once where the new one is in a bay", () => {
    const both = withRules(plan, { replacing: "old-attached" });
    const attached = attach("d1", "x1");
    expect(walked(both, attached)[0]!.cost.swaps).toBe(2);
    const inBay = {
      ...both,
      drives: both.drives.map((drive) => (drive.id === "x1" ? { ...drive, place: { bay: 3 } } : drive)),
    };
    expect(walked(inBay, attached)[0]!.cost.swaps).toBe(1);
    const parity = boxWith("parity-drive", "parity-drive-1", [4, 4, 8], [12]);
    const change = parityChanged("d3", "x1");
    expect(walked(parity, change)[0]!.cost.swaps).toBe(1);
    expect(walked(withRules(parity, { replacing: "old-attached" }), change)[0]!.cost.swaps).toBe(2);
  });
  test("whatever puts a drive in or takes one out; nothing where no drive moves, or no pool is there", () => {
    const wide = withRules(plan, { hotSpares: "shared" });
    const swaps = (...steps: StepBody[]) => walked(wide, ...steps).map(({ cost }) => cost.swaps);
    expect(swaps({ kind: "set-spare", pool: "p1", drive: "x1" }, { kind: "verify", pool: "p1" })).toEqual([1, 0]);
    const empty = { ...wide, pools: [] };
    const made = create("raid1", "x1", "x2");
    expect(walked(empty, made)[0]!.cost.swaps).toBe(0);
    expect(walked(wide, made)[0]!.cost.swaps).toBe(1);
  });
  test("in words: off, or stopped; so often", () => {
    const rules = rulesOf({ set: "desktop-mirror" });
    expect(swapWords(0, rules)).toBe("");
    expect(swapWords(3, rules)).toBe("the box is off for about 15 minutes, three times");
    expect(swapWords(7, { ...rules, swapping: "stop-pool", swapMinutes: 1 })).toBe(
      "the pool is stopped for about 1 minute, 7 times",
    );
  });
  test("what is offline all the while says so, and for how long of it where it is not to the end", () => {
    const rules = rulesOf({ set: "linux-host" });
    const volumes = [{ id: "v1", name: "V", bytes: 4e12, fileSystem: "ext4" as const, usedBytes: 1e12 }];
    const host = boxWith("linux-host", "raid5", [4, 4, 4], [4], { volumes });
    const [shrunk] = walked(host, { kind: "shrink-volume", pool: "p1", volume: "v1", bytes: 3e12 });
    expect(shrunk!.cost.offline).toEqual(shrunk!.cost.hours);
    expect(onlineWords(shrunk!.cost, rules)).toBe("the pool is offline");
    const [, anew] = walked(
      host,
      { kind: "back-up", pool: "p1", to: "b1" },
      { kind: "rebuild-from-backup", pool: "p1", layout: "raid6", drives: ["d1", "d2", "d3", "x1"] },
    );
    // 1 TB comes back at 117 MB/s; the first fill of 4 TB goes on for 12.3 hours.
    expect(onlineWords(anew!.cost, rules)).toBe("the pool is offline for 2.4 h (1.5 to 3.8)");
    expect(rounded(anew!.cost.hours)).toEqual(["8.03", "12.35", "19.76"]);
  });
});

describe("parity drives are worked through in one go, at 0.95 of the drives' rate", () => {
  const plan = boxWith("parity-drive", "parity-drive-2", [2, 2, 2, 2], [2, 2, 2]);
  const HOURS = ["2.92", "4.50", "7.20"];

  test("2 TB: 4.5 h, 2.9 to 7.2, to make, to rebuild, to check, and for a further parity drive", () => {
    const still = withRules(plan, { swapMinutes: 0 });
    const made = create("parity-drive-1", "x1", "x2");
    const parity = parityChanged("d4", "x1");
    for (const step of [made, pull("d1", "x1"), parity, { kind: "verify", pool: "p1" } as StepBody])
      expect([step.kind, rounded(walked(still, step)[0]!.cost.hours)]).toEqual([step.kind, HOURS]);
    const one = withRules(boxWith("parity-drive", "parity-drive-1", [2, 2, 2], [2]), { swapMinutes: 0 });
    const level: StepBody = { kind: "change-level", group: "g1", layout: "parity-drive-2", drives: ["x1"] };
    expect(rounded(walked(one, level)[0]!.cost.hours)).toEqual(HOURS);
    const scheduled = boxWith("scheduled-parity", "parity-drive-1", [2, 2, 2]);
    expect(rounded(walked(scheduled, { kind: "update-parity", pool: "p1" })[0]!.cost.hours)).toEqual(HOURS);
  });
  test("two rebuilt together take the time of the longer, with the box away once, and a failure loses data", () => {
    const second = { ...pull("d2", "x2"), together: true };
    const [first, then] = walked(plan, pull("d1", "x1"), second);
    expect([first!.done, then!.done, then!.from, then!.to]).toEqual([true, true, 0, first!.to]);
    expect([first!.cost.swaps, then!.cost.swaps]).toEqual([1, 0]);
    expect([first!.exposure, then!.exposure]).toEqual([
      [{ pool: "p1", redundancy: 1, usual: 2 }],
      [{ pool: "p1", redundancy: 0, usual: 2 }],
    ]);
  });
  test("not beyond what parity bears, nor in a group that is rewritten in stripes", () => {
    const codes = (each: ReturnType<typeof walked>[number]) =>
      each.findings.filter(({ severity }) => severity === "block").map(({ code }) => code);
    const third = [pull("d1", "x1"), pull("d2", "x2"), pull("d3", "x3")].map((step, i) =>
      i > 0 ? { ...step, together: true } : step,
    );
    expect(codes(walked(plan, ...third)[2]!)).toContain("nothing-to-rebuild-from");
    const parity = { kind: "change-parity-drive", group: "g1", drive: "d4", by: "x3", together: true } as const;
    expect(walked(plan, third[0]!, parity)[1]!.done).toBe(true);
    expect(codes(walked(plan, third[0]!, third[1]!, parity)[2]!)).toContain("nothing-to-rebuild-from");
    const raid6 = boxWith("classic-raid", "raid6", [2, 2, 2, 2], [2, 2]);
    expect(walked(raid6, third[0]!, third[1]!)[1]!.done).toBe(true);
    const raid10 = boxWith("classic-raid", "raid10", [2, 2, 2, 2], [2, 2]);
    const other = { ...pull("d3", "x2"), together: true };
    expect(codes(walked(raid10, third[0]!, other)[1]!)).toEqual(["before-the-last-has-ended"]);
  });
});

describe("the first fill of a new group", () => {
  const plan = boxWith("linux-host", "raid5", [4, 4, 4], [8, 8, 8, 8]);
  const workOf = (step: StepBody, of = plan) =>
    walked(of, step)[0]!.cost.work.map(
      ({ drive, reads, writes }) => `${drive} ${(reads / 1e12).toFixed(0)}/${(writes / 1e12).toFixed(0)}`,
    );

  test("a mirror's copy; each pair's; all that parity is worked out from; nothing without redundancy", () => {
    expect(workOf(create("raid1", "x1", "x2", "x3"))).toEqual(["x1 8/0", "x2 0/8", "x3 0/8"]);
    expect(workOf(create("raid10", "x1", "x2", "x3", "x4"))).toEqual(["x1 8/0", "x2 0/8", "x3 8/0", "x4 0/8"]);
    expect(workOf(create("raid10", "x1", "x2", "x3"))).toEqual(["x1 4/4", "x2 4/4", "x3 4/4"]);
    expect(workOf(create("raid6", "x1", "x2", "x3", "x4"))).toEqual(["x1 8/8", "x2 8/8", "x3 8/8", "x4 8/8"]);
    expect(workOf(create("raid0", "x1", "x2"))).toEqual([]);
    const parity = boxWith("parity-drive", "parity-drive-1", [4, 4, 4], [4, 8, 8]);
    expect(workOf(create("parity-drive-1", "x1", "x2", "x3"), parity)).toEqual(["x1 4/0", "x2 8/0", "x3 0/8"]);
  });
  test("8 TB at 0.6 of 150 MB/s, a failed drive loses data until then; the space is given out meanwhile", () => {
    const [made, verified, wiped] = walked(
      plan,
      create("raid1", "x1", "x2"),
      { kind: "verify", pool: "p2", together: true } as unknown as StepBody,
      { kind: "back-up", pool: "p2", to: "b1", together: true } as unknown as StepBody,
    );
    expect(rounded(made!.cost.hours)).toEqual(["16.05", "24.70", "39.51"]);
    expect(made!.exposure).toEqual([{ pool: "p2", redundancy: 0, usual: 1 }]);
    expect([made!.done, verified!.done, wiped!.done]).toEqual([true, false, true]);
  });
  test("none where the box does nothing, copies only what is used, or writes chunks where they fit", () => {
    for (const firstFill of ["none", "used-only"] as const) {
      const [made] = walked(withRules(plan, { firstFill }), create("raid1", "x1", "x2"));
      expect([made!.cost.work, made!.exposure, made!.cost.hours.expected]).toEqual([[], [], 0.1]);
    }
    const chunks = withRules(boxWith("chunk-copies", "copies-2", [4, 4], [4, 4]), { firstFill: "at-once" });
    expect(workOf(create("copies-2", "x1", "x2"), chunks)).toEqual([]);
  });
  test("a further group leaves a pool that bears a failure without one; a stripe had none to lose", () => {
    const add: StepBody = { kind: "add-group", pool: "p1", group: "g2", layout: "raid5", drives: ["x1", "x2", "x3"] };
    expect(walked(plan, add)[0]!.exposure).toEqual([{ pool: "p1", redundancy: 0, usual: 1 }]);
    const stripe = boxWith("linux-host", "raid0", [4, 4], [8, 8, 8]);
    expect(walked(stripe, add)[0]!.exposure).toEqual([]);
  });
  test("a mirror made in place copies all, or half where half is used and the box copies that only", () => {
    const volumes = [{ id: "v1", name: "V", bytes: 4e12, fileSystem: "ext4" as const, usedBytes: 2e12 }];
    const separate = boxWith("linux-host", "single", [4], [4], { volumes });
    const mirror: StepBody = { kind: "mirror-drive", pool: "p1", group: "g1", name: "P", drive: "d1", by: "x1" };
    const hours = (overrides: Partial<BoxRules>) =>
      walked(withRules(separate, overrides), mirror)[0]!.cost.hours.expected.toFixed(1);
    expect(hours({ firstFill: "at-once", rebuilding: "used-only" })).toBe("12.3");
    expect(hours({ firstFill: "used-only" })).toBe("6.2");
    expect(hours({ firstFill: "none" })).toBe("12.3");
    expect(hours({ firstFill: "none", rebuilding: "used-only" })).toBe("6.2");
  });
});
