import fc from "fast-check";
import { applyCommand } from "../commands/applyCommand";
import type { Command } from "../document/command";
import type { Drive, LayoutId, Plan, Pool } from "../document/plan";
import { coverage } from "../data/coverage";
import { unprotectedOf, unprotectedWords } from "../data/unprotected";
import { GiB } from "../bytes/bytes";
import { layouts } from "../layouts/registry";
import { boxWith, withDrive, withRules } from "../testing/boxWith";
import { survivesForReal } from "../testing/codedBytes";
import { predict } from "./predict";

// What state a pool is in when drives have failed or are missing in fact.

const MISSING: Partial<Drive> = { state: "missing", place: { shelf: true } };
const without = (plan: Plan, ...ids: string[]): Plan =>
  ids.reduce((then, id) => withDrive(then, id, { state: "failed" }), plan);
const stateOf = (plan: Plan) => {
  const [pool] = predict(plan).pools;
  return [pool!.condition.state, pool!.condition.redundancyLeft, pool!.condition.unreadable.join()];
};
const codes = (plan: Plan) => predict(plan).pools[0]!.findings.map(({ severity, code }) => `${severity} ${code}`);
const doing = (plan: Plan, command: Command): Plan => {
  const result = applyCommand(plan, command);
  if (!result.ok) throw new Error(result.reason);
  return result.plan;
};

test.each<[string, Plan, string[], (string | number)[]]>([
  ["a mirror of two with one half gone", boxWith("desktop-mirror", "raid1", [4, 4]), ["d2"], ["degraded", 0, ""]],
  ["a mirror of three", boxWith("classic-raid", "raid1", [4, 4, 4]), ["d2"], ["degraded", 1, ""]],
  [
    "striped mirrors, one of each pair",
    boxWith("classic-raid", "raid10", [4, 4, 4, 4]),
    ["d1", "d3"],
    ["degraded", 0, ""],
  ],
  ["striped mirrors, both of a pair", boxWith("classic-raid", "raid10", [4, 4, 4, 4]), ["d1", "d2"], ["lost", -1, ""]],
  ["single parity", boxWith("classic-raid", "raid5", [4, 4, 4]), ["d2"], ["degraded", 0, ""]],
  ["single parity, two", boxWith("classic-raid", "raid5", [4, 4, 4]), ["d1", "d2"], ["lost", -1, ""]],
  ["double parity, one", boxWith("classic-raid", "raid6", [4, 4, 4, 4]), ["d1"], ["degraded", 1, ""]],
  ["triple parity, two", boxWith("fixed-group", "triple-parity", [4, 4, 4, 4, 4]), ["d1", "d2"], ["degraded", 1, ""]],
  ["a hybrid", boxWith("hybrid-box", "hybrid-1", [4, 4, 8, 12]), ["d4"], ["degraded", 0, ""]],
  ["parity drives, a data drive", boxWith("parity-drive", "parity-drive-1", [4, 4, 8]), ["d1"], ["degraded", 0, ""]],
  [
    "parity drives, two data drives",
    boxWith("parity-drive", "parity-drive-1", [4, 4, 8]),
    ["d1", "d2"],
    ["partly-lost", -1, "d1,d2"],
  ],
  [
    "scheduled parity, a data drive",
    boxWith("scheduled-parity", "parity-drive-1", [4, 4, 8]),
    ["d1"],
    ["degraded", 0, "d1"],
  ],
  [
    "scheduled parity, the parity drive",
    boxWith("scheduled-parity", "parity-drive-1", [4, 4, 8]),
    ["d3"],
    ["degraded", 0, ""],
  ],
  ["separate drives", boxWith("linux-host", "single", [4, 8]), ["d2"], ["partly-lost", -1, "d2"]],
  ["a span", boxWith("linux-host", "span", [4, 8]), ["d2"], ["lost", -1, ""]],
  ["a stripe", boxWith("linux-host", "raid0", [4, 4]), ["d2"], ["lost", -1, ""]],
  ["two copies", boxWith("chunk-copies", "copies-2", [4, 4, 8]), ["d3"], ["degraded", 0, ""]],
  ["a drive of no group", boxWith("classic-raid", "raid1", [4, 4], [4]), ["x1"], ["whole", 1, ""]],
])("%s", (_, plan, gone, expected) => {
  expect(stateOf(without(plan, ...gone))).toEqual(expected);
  const missing = gone.reduce((then, id) => withDrive(then, id, MISSING), plan);
  expect(stateOf(missing)).toEqual(expected);
  const [before, after] = [predict(plan).pools[0]!, predict(missing).pools[0]!];
  expect(after.tolerance).toBe(before.tolerance);
  if (expected[1] !== -1) expect(after.usableBytes).toBe(before.usableBytes);
  else expect(after.usableBytes).toBeLessThan(before.usableBytes);
  const sum = (pool: typeof after) => pool.ledger.reduce((total, { bytes }) => total + bytes, 0);
  expect(sum(after)).toBe(sum(before));
});

/** Any layout on drives of a few GiB, in one or two groups, of which up to three are gone. */
const anyLacking = fc
  .record({
    layout: fc.constantFrom(...layouts.map(({ id }) => id)),
    sizes: fc.array(fc.integer({ min: 1, max: 5 }), { minLength: 2, maxLength: 6 }),
    second: fc.boolean(),
    gone: fc.uniqueArray(fc.nat(7), { maxLength: 3 }),
  })
  .map(({ layout, sizes, second, gone }) => {
    const bytes = (second ? [...sizes, 3, 3] : sizes).map((size) => size * GiB);
    const plan = withRules(boxWith("linux-host", layout, bytes), { arrayFormat: "plain" });
    const ids = plan.drives.map(({ id }) => id);
    const [group] = plan.pools[0]!.groups;
    const groups: Pool["groups"] = second
      ? [
          { ...group!, drives: ids.slice(0, -2) },
          { id: "g2", layout: "raid1" as LayoutId, drives: ids.slice(-2) },
        ]
      : plan.pools[0]!.groups;
    const made = { ...plan, pools: [{ ...plan.pools[0]!, groups }] };
    return { made, gone: [...new Set(gone.map((at) => ids[at % ids.length]!))] };
  })
  .filter(({ made }) => predict(made).pools[0]!.groups.every(({ bands }) => bands.length > 0));

test("the state of any pool with up to three drives gone equals what is read back of coded bytes", () => {
  fc.assert(
    fc.property(anyLacking, ({ made, gone }) => {
      const pool = predict(without(made, ...gone)).pools[0]!;
      const bands = pool.groups.flatMap((group) => group.bands);
      const failed = new Set(gone);
      const { state, redundancyLeft, missing, unreadable } = pool.condition;
      const survives = survivesForReal(bands, failed, GiB);
      expect(["whole", "degraded"].includes(state)).toBe(survives);
      expect([...missing].sort()).toEqual([...gone].sort());
      if (state === "partly-lost") {
        const lost = gone.filter((id) =>
          bands.some((band) => {
            const data = band.members.slice(
              0,
              band.scheme.kind === "dedicated-parity" ? -band.scheme.parity : undefined,
            );
            return data.some(({ drive }) => drive === id) && !survivesForReal([band], failed, GiB);
          }),
        );
        expect([...unreadable].sort()).toEqual(lost.sort());
      }
      if (!survives) return;
      // Of the drives that are left, every further set of so many is survived, and some set of one more is not.
      const members = pool.groups.flatMap((group) => group.drives).filter((id) => !failed.has(id));
      const kills = (size: number, from: number, more: string[]): boolean =>
        size === 0
          ? !survivesForReal(bands, new Set([...gone, ...more]), GiB)
          : members.some((id, i) => i >= from && kills(size - 1, i + 1, [...more, id]));
      expect(kills(redundancyLeft, 0, [])).toBe(false);
      expect(kills(redundancyLeft + 1, 0, [])).toBe(true);
    }),
    { numRuns: 120 },
  );
});

describe("what is said of it", () => {
  const raid5 = boxWith("classic-raid", "raid5", [4, 4, 4], [4, 3], {}, 5);
  test("first whether the data is safe, then what is gone and what a further failure would do", () => {
    const said = (plan: Plan) => predict(plan).pools[0]!.findings[0]!.message;
    expect(said(without(raid5, "d1"))).toBe(
      "Nothing is lost. The 4\u00a0TB drive in bay 1 has failed: if one more fails, data is lost. Replace it now.",
    );
    expect(said(without(boxWith("classic-raid", "raid6", [4, 4, 4, 4]), "d1"))).toMatch(
      /^Nothing is lost\..*: the loss of any one more drive is survived\. Replace it now\.$/,
    );
    expect(said(without(raid5, "d1", "d2"))).toMatch(/^Nothing on P can be read: only a backup brings it back\./);
    expect(said(without(boxWith("linux-host", "single", [4, 8]), "d2"))).toMatch(/^Only what was on the failed 8\sTB/);
    expect(codes(without(raid5, "d1"))).toContain("block pool-degraded");
    expect(codes(without(boxWith("classic-raid", "raid6", [4, 4, 4, 4]), "d1"))).toContain("warn pool-degraded");
    expect(codes(without(raid5, "d1", "d2"))).toContain("block pool-lost");
    expect(codes(without(boxWith("linux-host", "single", [4, 8]), "d2"))).toContain("block pool-partly-lost");
    expect(codes(raid5).filter((code) => code.includes("pool-"))).toEqual([]);
  });
  test("a failed drive on the shelf of its group is a gap, not one to be put in", () => {
    expect(codes(withDrive(raid5, "d1", MISSING))).not.toContain("warn member-on-shelf");
  });
  test("a schedule that runs over a loss is stopped by a press; a missing limit is said", () => {
    const schedule = { everyHours: 24 };
    const plan = boxWith("scheduled-parity", "parity-drive-1", [4, 4, 8], [], { paritySchedule: schedule });
    expect(codes(plan)).toEqual(expect.arrayContaining(["warn no-deleted-limit", "note protected-as-of-last-update"]));
    const lacking = without(plan, "d1");
    const finding = predict(lacking).pools[0]!.findings.find(({ code }) => code === "schedule-over-a-loss");
    expect(finding?.severity).toBe("block");
    const stopped = doing(lacking, finding!.mend!.command);
    expect(stopped.pools[0]!.paritySchedule).toEqual({ everyHours: 24, paused: true });
    expect(codes(stopped)).not.toContain("block schedule-over-a-loss");
    const limited = doing(plan, {
      kind: "set-parity-schedule",
      pool: "p1",
      schedule: { ...schedule, deletedLimit: 9 },
    });
    expect(codes(limited)).not.toContain("warn no-deleted-limit");
  });
});

describe("hot spares", () => {
  const spared = (set: "classic-raid" | "hybrid-box", layout: LayoutId, sizes: number[], spare: number) => {
    const plan = boxWith(set, layout, sizes, [spare], { spares: ["x1"] });
    return withDrive(plan, "x1", { place: { bay: 9 } });
  };
  const fails = (plan: Plan, drive: string) =>
    doing(plan, { kind: "set-drive-state", drives: [drive], state: "failed", since: "2026-11-20T21:40Z" });
  test("one that fits takes over at once, in the same command, and the pool is rebuilding until it is filled", () => {
    const plan = fails(spared("classic-raid", "raid5", [4, 4, 4], 4), "d2");
    expect(plan.steps).toEqual([{ id: "s1", kind: "rebuild", group: "g1", drive: "d2", by: "x1" }]);
    expect(stateOf(plan)).toEqual(["rebuilding", 0, ""]);
    // Without the step it is said that the spare fits, and one press lets it take over.
    const idle = predict({ ...plan, steps: [] }).pools[0]!.findings.find(({ code }) => code === "spare-idle");
    expect(doing({ ...plan, steps: [] }, idle!.mend!.command).steps).toEqual(plan.steps);
    expect(codes(plan)).not.toContain("warn spare-idle");
    const result = applyCommand(plan, { kind: "set-drive-state", drives: ["d2"], state: null });
    expect(result.ok && [result.plan.steps, stateOf(result.plan)]).toEqual([[], ["whole", 1, ""]]);
  });
  test("when it fails too while it is being filled, it fills nothing", () => {
    const plan = fails(fails(spared("classic-raid", "raid5", [4, 4, 4], 4), "d2"), "x1");
    expect(plan.steps).toEqual([]);
    expect(stateOf(plan)).toEqual(["degraded", 0, ""]);
    expect(codes(plan)).toContain("warn spare-gone");
  });
  test("when a second drive fails meanwhile, nothing is left to fill it from", () => {
    const plan = fails(fails(spared("classic-raid", "raid5", [4, 4, 4], 4), "d2"), "d1");
    expect(plan.steps).toEqual([]);
    expect(stateOf(plan)).toEqual(["lost", -1, ""]);
  });
  test("one that does not fit stays idle, and that is said beforehand, with why", () => {
    const small = spared("hybrid-box", "hybrid-1", [4, 8, 8], 4);
    const note = predict(small).pools[0]!.findings.find(({ code }) => code === "spare-for-some");
    expect(note?.message).toMatch(/would take over for .*bay 1.*Not for .*bay 2.*bay 3.*too small by 4\.00\sTB/);
    expect(fails(small, "d3").steps).toEqual([]);
    expect(fails(small, "d1").steps).toHaveLength(1);
    const flash = withDrive(spared("classic-raid", "raid5", [4, 4, 4], 4), "x1", { medium: "ssd" });
    expect(codes(flash)).toContain("block spare-of-no-use");
    expect(fails(flash, "d1").steps).toEqual([]);
    expect(codes(spared("classic-raid", "raid5", [4, 4, 4], 3))).toContain("block spare-too-small");
    expect(fails(spared("classic-raid", "raid0", [4, 4], 4), "d1").steps).toEqual([]);
  });
  test("the smallest that fits is taken, a group's own first", () => {
    const two = boxWith("classic-raid", "raid5", [4, 4, 4], [8, 6], { spares: ["x1", "x2"] });
    expect(fails(two, "d1").steps[0]).toMatchObject({ by: "x2" });
    const own = boxWith("classic-raid", "raid5", [4, 4, 4], [8, 6], { spares: ["x2"] });
    own.pools[0]!.groups[0]!.spares = ["x1"];
    expect(fails(own, "d1").steps[0]).toMatchObject({ by: "x1" });
  });
});

test("a missing drive gives its bay up and gets it back; a failed one keeps it, and leaves a gap when it is pulled", () => {
  const plan = boxWith("classic-raid", "raid5", [4, 4, 4], [4], {}, 4);
  const pulled = doing(plan, { kind: "set-drive-state", drives: ["d2"], state: "missing" });
  expect(pulled.drives[1]).toMatchObject({ state: "missing", lastBay: 2, place: { shelf: true } });
  expect(pulled.pools[0]!.groups[0]!.drives).toEqual(["d1", "d2", "d3"]);
  expect(doing(pulled, { kind: "set-drive-state", drives: ["d2"], state: null }).drives[1]).toEqual(plan.drives[1]);
  const failed = doing(plan, { kind: "set-drive-state", drives: ["d2"], state: "failed" });
  expect(failed.drives[1]!.place).toEqual({ bay: 2 });
  const out = doing(failed, { kind: "move-drive", drive: "d2", to: { shelf: true } });
  expect(out.pools[0]!.groups[0]!.drives).toEqual(["d1", "d2", "d3"]);
  // Its bay taken, another is free; none free, it is refused.
  const taken = doing(pulled, { kind: "move-drive", drive: "x1", to: { bay: 2 } });
  expect(doing(taken, { kind: "set-drive-state", drives: ["d2"], state: null }).drives[1]!.place).toEqual({ bay: 4 });
  const full = { ...taken, box: { ...taken.box, bays: 3 } };
  expect(applyCommand(full, { kind: "set-drive-state", drives: ["d2"], state: null }).ok).toBe(false);
});

test("counts that grow between two readings are a trend, and raise the finding; the same reading twice is none", () => {
  const plan = boxWith("classic-raid", "raid5", [4, 4, 4], [4]);
  const read = (before: Plan, powerOnHours: number, reallocatedSectors: number) =>
    doing(before, {
      kind: "update-drives",
      edits: [{ drive: "d1", changes: { health: { state: "watch", powerOnHours, reallocatedSectors } } }],
      added: [],
    });
  const once = read(plan, 100, 16);
  expect(codes(once)).toContain("warn drive-suspect");
  expect(codes(read(once, 100, 16))).toContain("warn drive-suspect");
  const twice = read(once, 900, 24);
  expect(twice.drives[0]!.health.earlier).toEqual({ powerOnHours: 100, reallocatedSectors: 16 });
  const worse = predict(twice).pools[0]!.findings.find(({ code }) => code === "drive-gets-worse");
  expect(worse).toMatchObject({ severity: "block", message: expect.stringMatching(/24 worn-out sectors, 8 more/) });
  expect(worse!.mend!.command).toMatchObject({ kind: "insert-steps" });
  expect(codes(read(twice, 1000, 24))).toContain("warn drive-suspect");
});

test("what scheduled parity does not protect: up to the failure or now, in hours and by growth", () => {
  const paritySchedule = { everyHours: 24, lastUpdate: "2026-11-20T03:00Z" };
  const volume = { id: "v1", name: "V", bytes: 3e12, fileSystem: "ext4" as const };
  const plan: Plan = {
    ...boxWith("scheduled-parity", "parity-drive-1", [4, 4, 8], [], { paritySchedule, volumes: [volume] }),
    dataSets: [
      { id: "s1", name: "S", volume: "v1", bytes: 1e12, worth: "useful", growth: { bytesPerMonth: 30.436875e9 } },
    ],
  };
  const of = (some: Plan, now: string | null) => unprotectedOf(some, some.pools[0]!, now);
  expect(of(plan, null)).toEqual({ since: "2026-11-20T03:00Z", hours: 24, bytes: 1e9 });
  expect(of(plan, "2026-11-20T15:00Z")).toMatchObject({ hours: 12, bytes: 5e8 });
  const failed = withDrive(plan, "d1", { state: "failed", since: "2026-11-20T09:00Z" });
  expect(of(failed, "2026-11-23T15:00Z").hours).toBe(6);
  expect(unprotectedWords(of(failed, null), "TB")).toMatch(
    /^What was changed after the last update, on 20 Nov 2026, is not protected: about 6 hours, in which the data grows by about 250(\.0)?\sMB\.$/,
  );
  const unknown = { ...plan, pools: [{ ...plan.pools[0]!, paritySchedule: { everyHours: 24 } }] };
  expect(unprotectedWords(of(unknown, null), "TB")).toMatch(/^It is not known/);
});

test("what one more failure takes is told of the box as it is, without the drives that are gone", () => {
  const volume = { id: "v1", name: "V", bytes: 3e12, fileSystem: "ext4" as const };
  const plan: Plan = {
    ...boxWith("classic-raid", "raid5", [4, 4, 4], [], { volumes: [volume] }),
    dataSets: [{ id: "s1", name: "S", volume: "v1", bytes: 1e12, worth: "useful" }],
  };
  const one = (some: Plan) => coverage(some, null)[0]!.outcomes["one-failure"].kind;
  expect([one(plan), one(without(plan, "d1")), one(without(plan, "d1", "d2"))]).toEqual(["kept", "lost", "lost"]);
});
