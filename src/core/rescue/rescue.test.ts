import fc from "fast-check";
import { conditionOf } from "../box/condition";
import { groupOfDrive } from "../box/members";
import { rulesOfBox } from "../box/rulesOfBox";
import { applyCommand } from "../commands/applyCommand";
import type { LayoutId, Plan, Pool, RuleSetId, StepBody } from "../document/plan";
import { numbered } from "../testing/anySteps";
import { testDrive } from "../testing/arbitraries";
import { boxWith, withDrive } from "../testing/boxWith";
import { away } from "../testing/dataPlan";
import { walkPlan } from "../walk/walkPlan";
import type { Instead, RescueChoices } from "./rescue";
import { poolsToRescue, rescueOf, settingOf } from "./rescueOf";

const DAY = "2026-11-26";
const VOLUME = { volumes: [{ id: "v1", name: "V", bytes: 3e12, fileSystem: "ext4" as const, usedBytes: 1e12 }] };
const box = (set: RuleSetId, layout: LayoutId, sizes: number[], shelf: number[] = [], more: Partial<Pool> = {}) =>
  boxWith(set, layout, sizes, shelf, { ...VOLUME, ...more });

const said = (plan: Plan, drive: string, state: "failed" | "missing" | null): Plan => {
  const result = applyCommand(plan, { kind: "set-drive-state", drives: [drive], state, since: "2026-11-20T21:40Z" });
  if (!result.ok) throw new Error(result.reason);
  return result.plan;
};
const fails = (plan: Plan, ...ids: string[]) => ids.reduce((then, id) => said(then, id, "failed"), plan);
const stored = (plan: Plan, worth: "precious" | "useful" = "precious"): Plan => ({
  ...plan,
  dataSets: [{ id: "s1", name: "X-rays", volume: "v1", bytes: 1e12, worth }],
});
const kept = (plan: Plan): Plan => ({
  ...stored(plan),
  backups: [{ ...away, id: "b9", lastVerified: "2026-11-20" }],
});
const seated = (plan: Plan) => withDrive(plan, "x1", { place: { bay: 9 } });
const failing = (plan: Plan) => withDrive(plan, "d1", { health: { state: "failing" } });
const rescue = (plan: Plan, choices: RescueChoices = {}) => rescueOf(settingOf(plan, "p1", "TB", DAY)!, choices);

// The order of work, a line each.
test.each<[string, Plan, string]>([
  [
    "a mirror of two, a third drive at hand",
    fails(box("desktop-mirror", "raid1", [4, 4], [4]), "d2"),
    "stop find half copy loose swap rebuild check backup",
  ],
  [
    "a mirror of three: protection left, so the new one is tested",
    fails(box("classic-raid", "raid1", [4, 4, 4], [4]), "d2"),
    "stop find loose test swap rebuild check backup",
  ],
  [
    "single parity, nothing fits: bought, not tested",
    fails(box("classic-raid", "raid5", [4, 4, 4], [3]), "d2"),
    "stop find copy loose buy swap rebuild check backup",
  ],
  [
    "single parity, precious data with a backup: nothing is copied",
    fails(kept(box("classic-raid", "raid5", [4, 4, 4], [4])), "d2"),
    "stop find loose swap rebuild check backup",
  ],
  [
    "double parity, one gone",
    fails(box("classic-raid", "raid6", [4, 4, 4, 4], [4]), "d2"),
    "stop find loose test swap rebuild check backup",
  ],
  [
    "double parity, two gone",
    fails(box("classic-raid", "raid6", [4, 4, 4, 4], [4, 4]), "d2", "d3"),
    "stop find find copy loose swap rebuild swap rebuild check backup",
  ],
  [
    "a spare has taken over, and is replaced",
    fails(seated(box("classic-raid", "raid5", [4, 4, 4], [4, 4], { spares: ["x1"] })), "d2"),
    "stop find copy rebuild check spare backup",
  ],
  [
    "parity by schedule: stopped first, resumed last",
    fails(box("scheduled-parity", "parity-drive-1", [4, 4, 8], [4]), "d1"),
    "stop-schedule find copy loose swap restore check resume backup",
  ],
  [
    "its parity drive",
    fails(box("scheduled-parity", "parity-drive-1", [4, 4, 8], [8]), "d3"),
    "stop-schedule find copy loose swap rebuild check resume backup",
  ],
  [
    "parity drives at once",
    fails(box("parity-drive", "parity-drive-1", [4, 4, 8], [4]), "d1"),
    "stop find copy loose swap rebuild check backup",
  ],
  [
    "copies, with room on the others",
    fails(box("chunk-copies", "copies-2", [4, 4, 8, 8]), "d1"),
    "stop find copy loose spread check backup",
  ],
  [
    "copies, without",
    fails(
      box("chunk-copies", "copies-2", [4, 4, 4], [], { volumes: [{ ...VOLUME.volumes[0]!, bytes: 5.9e12 }] }),
      "d1",
    ),
    "stop find copy loose buy swap rebuild check backup",
  ],
  [
    "more than it bears",
    fails(kept(box("classic-raid", "raid5", [4, 4, 4], [4, 4])), "d1", "d2"),
    "stop loose copy-dead backups new-pool backup",
  ],
  [
    "a separate drive, in a backup",
    fails(kept(box("linux-host", "single", [4, 4], [4])), "d1"),
    "loose copy-dead backups rest restore backup",
  ],
  [
    "a separate drive, in none",
    fails(box("linux-host", "single", [4, 4]), "d1"),
    "loose copy-dead backups rest given-up backup",
  ],
  ["a failing drive that can be copied", failing(box("linux-host", "raid5", [4, 4, 4], [4])), "replace check backup"],
  [
    "a failing drive that is pulled",
    failing(box("hybrid-box", "hybrid-1", [4, 4, 4], [4])),
    "copy replace check backup",
  ],
  [
    "a spare",
    fails(seated(box("classic-raid", "raid5", [4, 4, 4], [4, 4], { spares: ["x1"] })), "x1"),
    "check spare backup",
  ],
  [
    "a worn drive",
    withDrive(box("classic-raid", "raid5", [4, 4, 4]), "d1", { health: { state: "watch", reallocatedSectors: 24 } }),
    "test",
  ],
  [
    "a read cache",
    fails(box("classic-raid", "raid5", [4, 4, 4], [1], { helpers: [{ drive: "x1", role: "read-cache" }] }), "x1"),
    "helper",
  ],
  [
    "a drive that was only loose, and away for long, is filled again",
    {
      ...said(box("classic-raid", "raid5", [4, 4, 4], [4]), "d2", "missing"),
      steps: [{ id: "s1", kind: "rebuild", group: "g1", drive: "d2", by: "d2" }],
    },
    "stop find copy back-in rebuild check backup",
  ],
  [
    "while a step of the plan was under way",
    numbered(fails(box("classic-raid", "raid5", [4, 4, 4], [4, 4]), "d2"), [
      { kind: "widen-group", group: "g1", drives: ["x2"] },
    ]),
    "under-way stop find copy loose swap rebuild check backup",
  ],
  [
    "the drive that the box starts from",
    fails(withDrive(box("linux-host", "raid5", [4, 4, 4], [1]), "x1", { contents: { kind: "system" } }), "x1"),
    "system",
  ],
  ["nothing", box("classic-raid", "raid5", [4, 4, 4]), ""],
])("%s", (_, plan, expected) => {
  expect(
    rescue(plan)
      .rescue.acts.map(({ what }) => what)
      .join(" "),
  ).toBe(expected);
});

/** Any box with some drives gone, spares, a shelf, data and backups. */
const SETS: readonly (readonly [RuleSetId, LayoutId, number])[] = [
  ["linux-host", "raid5", 3],
  ["linux-host", "raid10", 4],
  ["linux-host", "single", 2],
  ["linux-host", "raid0", 2],
  ["classic-raid", "raid1", 2],
  ["classic-raid", "raid6", 4],
  ["classic-raid", "span", 2],
  ["hybrid-box", "hybrid-1", 3],
  ["hybrid-box", "hybrid-2", 4],
  ["fixed-group", "triple-parity", 5],
  ["parity-drive", "parity-drive-2", 4],
  ["scheduled-parity", "parity-drive-1", 3],
  ["chunk-copies", "copies-2", 3],
  ["chunk-copies", "chunk-parity", 4],
  ["desktop-mirror", "raid1", 2],
];
const anyTrouble = fc
  .record({
    set: fc.constantFrom(...SETS),
    more: fc.array(fc.constantFrom(4, 6, 8), { maxLength: 2 }),
    shelf: fc.array(fc.constantFrom(3, 4, 8, 12), { maxLength: 3 }),
    spare: fc.boolean(),
    gone: fc.array(fc.record({ at: fc.nat(6), missing: fc.boolean() }), { minLength: 1, maxLength: 3 }),
    bad: fc.option(fc.nat(6)),
    data: fc.constantFrom((plan: Plan) => plan, stored, kept),
    used: fc.constantFrom(1e12, 2.9e12),
  })
  .map(({ set: [rules, layout, least], more, shelf, spare, gone, bad, data, used }) => {
    const sizes = [...Array<number>(least).fill(4), ...(rules === "desktop-mirror" ? [] : more)].sort((a, b) => a - b);
    const isSpare = spare && shelf.length > 0 && !["desktop-mirror", "scheduled-parity"].includes(rules);
    const volumes = [{ ...VOLUME.volumes[0]!, usedBytes: used }];
    let plan = data(boxWith(rules, layout, sizes, shelf, { volumes, ...(isSpare ? { spares: ["x1"] } : {}) }));
    if (isSpare) plan = seated(plan);
    const id = (at: number) => `d${(at % sizes.length) + 1}`;
    if (bad !== null) plan = withDrive(plan, id(bad), { health: { state: "failing" } });
    for (const { at, missing } of gone)
      if (plan.drives.find((drive) => drive.id === id(at))?.state === undefined)
        plan = said(plan, id(at), missing ? "missing" : "failed");
    return plan;
  });

/** The plan with the course of its pool in it, walked. */
function carriedOut(plan: Plan, choices: RescueChoices = {}) {
  const planned = rescue(plan, choices);
  const result = planned.command ? applyCommand(plan, planned.command) : { ok: true as const, plan };
  if (!result.ok) throw new Error(result.reason);
  return { ...planned, after: result.plan, walk: walkPlan(result.plan, "TB", undefined, DAY) };
}

test("each step of a course passes its check at its moment, and what could be made whole is whole at its end", () => {
  fc.assert(
    fc.property(anyTrouble, (plan) => {
      const { rescue: made, walk, after } = carriedOut(plan);
      for (const { walked } of walk.moments.slice(1))
        expect(walked!.findings.filter(({ severity }) => severity === "block").map(({ message }) => message)).toEqual(
          [],
        );
      // Nothing of it is planned twice.
      expect(rescue(after).command).toBeNull();
      const end = walk.moments.at(-1)!.state.plan;
      const pool = end.pools[0]!;
      const isGivenUp = made.acts.some(({ what }) => what === "given-up");
      if (!isGivenUp) expect(conditionOf(end, pool, rulesOfBox(end)).state).toBe("whole");
      if (plan.pools[0]!.spares.length > 0 && made.condition.state !== "lost" && made.condition.state !== "partly-lost")
        expect(
          pool.spares.filter((id) => end.drives.find((drive) => drive.id === id)?.state === undefined),
        ).not.toEqual([]);
    }),
    { numRuns: 150 },
  );
});

test("a course is the least exposed of all that could be chosen, and none of it is forbidden", () => {
  fc.assert(
    fc.property(anyTrouble, (plan) => {
      const { rescue: made } = rescue(plan);
      const ids = made.acts.flatMap(({ step }) => (step && "by" in step ? [step.by] : []));
      const gone = new Set(plan.drives.filter(({ state }) => state !== undefined).map(({ id }) => id));
      for (const id of ids) expect(gone.has(id)).toBe(false);
      expect(made.acts.some(({ step }) => step?.kind === "update-parity")).toBe(false);
      if (made.condition.state !== "degraded") return;
      // Every choice of a drive for each gap, and with or without a test.
      const lacking = made.condition.missing;
      const options: Instead[] = [...made.fits.map((by) => ({ by })), { buy: true }];
      const ways = lacking.reduce<Record<string, Instead>[]>(
        (sofar, drive) => sofar.flatMap((way) => options.map((each) => ({ ...way, [drive]: each }))),
        [{}],
      );
      for (const instead of ways.slice(0, 12))
        for (const test of [true, false]) {
          const other = rescue(plan, { instead, test }).rescue;
          if (other.blocks.length === 0) expect(made.bareHours).toBeLessThanOrEqual(other.bareHours + 1e-6);
        }
    }),
    { numRuns: 40 },
  );
});

test("what must not be done is tried by hand, and blocked or warned of", () => {
  fc.assert(
    fc.property(anyTrouble, (trouble) => {
      const rules = rulesOfBox(trouble);
      const pool = trouble.pools[0]!;
      const { missing, redundancyLeft, state } = conditionOf(trouble, pool, rules);
      fc.pre(missing.length > 0 && trouble.steps.length === 0);
      const fresh = testDrive("n1", 24e12);
      const plan: Plan = { ...trouble, drives: [...trouble.drives, fresh] };
      const against = (...bodies: StepBody[]) =>
        walkPlan(numbered(plan, bodies), "TB", undefined, DAY)
          .moments.at(-1)!
          .walked!.findings.filter(({ severity }) => severity !== "note")
          .map(({ severity, code }) => `${severity} ${code}`);
      const others = pool.groups.flatMap((group) => group.drives).filter((id) => !missing.includes(id));
      // Another drive pulled.
      for (const drive of others) {
        const found = against({ kind: "replace-drive", drive, by: "n1", how: "pulled" });
        expect(found.length).toBeGreaterThan(0);
        if (redundancyLeft <= 0 && state === "degraded") expect(found.join()).toMatch(/block/);
      }
      for (const drive of missing) {
        const owner = groupOfDrive(plan, drive)!.group;
        // The dead one put back, into its place or as a spare.
        if (plan.drives.find(({ id }) => id === drive)?.state === "failed")
          expect(against({ kind: "rebuild", group: owner.id, drive, by: drive }).join()).toMatch(/block drive-gone/);
        expect(against({ kind: "set-spare", pool: pool.id, drive }).join()).toMatch(/block drive-(gone|taken)/);
      }
      // The pool made by force of what is left of it, or changed while it lacks a drive.
      expect(
        against({
          kind: "create-group",
          pool: "p2",
          group: "g2",
          name: "N",
          layout: "raid1",
          drives: others.slice(0, 2),
        }).join(),
      ).toMatch(others.length > 0 ? /block drive-taken/ : /./);
      expect(against({ kind: "widen-group", group: "g1", drives: ["n1"] }).join()).toMatch(
        /block (degraded|pool-lost)/,
      );
      expect(against({ kind: "update-parity", pool: pool.id }).join()).toMatch(
        pool.groups[0]!.layout.startsWith("parity-drive") ? /block would-record-the-loss/ : /^$|block pool-lost/,
      );
    }),
    { numRuns: 80 },
  );
});

test("a check that is planned for later is not that of the course, which goes in before all else", () => {
  const later: StepBody[] = [
    { kind: "test-drive", drive: "x1" },
    { kind: "verify", pool: "p1" },
  ];
  const plan = numbered(fails(box("classic-raid", "raid5", [4, 4, 4], [4]), "d2"), later);
  const { command, after } = carriedOut(plan);
  expect(command).toMatchObject({ before: "s1", steps: [{ kind: "rebuild" }, { kind: "verify" }] });
  expect(after.steps.map(({ kind }) => kind)).toEqual(["rebuild", "verify", "test-drive", "verify"]);
  expect(rescue(after).command).toBeNull();
});

describe("what is said", () => {
  test("of a mirror of two: the half that is left by name, and what never", () => {
    const { rescue: made } = rescue(fails(box("desktop-mirror", "raid1", [4, 4], [4, 3]), "d2"));
    expect(made).toMatchObject({ readable: true, fits: ["x1"], buy: null });
    expect(made.wouldTake).toMatch(/^If the 4\sTB drive in bay 1 fails, everything on P is lost\.$/);
    expect(made.fitsNot).toEqual([{ drive: "x2", why: expect.stringMatching(/^it is too small by 1\.00\sTB$/) }]);
    expect(made.never[0]).toMatch(/^Do not pull any other drive/);
    expect(made.afterwards.join(" ")).toMatch(/warranty.*still on it.*wiped/);
  });
  test("of what to buy: to the byte, of the kind", () => {
    const { rescue: made } = rescue(fails(box("linux-host", "raid5", [4, 4, 4]), "d2"));
    // 129 MiB before the data and whole chunks of 512 KiB: 7 630 895 of them in 4 000 787 030 016 bytes.
    expect(made.buy).toEqual({ leastBytes: 4_000_786_677_760, medium: "hdd", bus: "sata", logicalSector: 512 });
    const smaller = withDrive(fails(box("linux-host", "raid5", [4, 4, 4], [4]), "d2"), "x1", {
      bytes: 4_000_786_677_760,
    });
    expect(rescue(smaller).rescue.fits).toEqual(["x1"]);
    const short = withDrive(smaller, "x1", { bytes: 4_000_786_677_759 });
    expect(rescue(short).rescue.fits).toEqual([]);
  });
  test("of what the backups hold, and what would be missing", () => {
    const lost = fails(kept(box("classic-raid", "raid5", [4, 4, 4])), "d1", "d2");
    expect(rescue(lost).rescue).toMatchObject({
      readable: false,
      comesBack: [expect.stringMatching(/at most 7 days old/)],
    });
    const bare = fails(stored(box("classic-raid", "raid5", [4, 4, 4])), "d1", "d2");
    expect(rescue(bare).rescue.comesBack.join()).toMatch(/holds X-rays: that would be missing/);
  });
  test("what each answer would cost, and an answer that is given is kept to", () => {
    const plan = fails(box("classic-raid", "raid5", [4, 4, 4], [4]), "d2");
    const { questions } = rescue(plan).rescue;
    const test = questions.find(({ id }) => id === "test")!;
    const [first, second] = test.options;
    expect([first!.chosen, second!.chosen]).toEqual([false, true]);
    expect(first!.bareHours - second!.bareHours).toBeCloseTo(10.6, 1);
    expect(rescue(plan, first!.choices).rescue.acts.map(({ what }) => what)).toContain("test");
  });
  test("only pools that ask for it are rescued", () => {
    const whole = box("classic-raid", "raid5", [4, 4, 4], [4]);
    expect(poolsToRescue(whole)).toEqual([]);
    expect(poolsToRescue(fails(whole, "d1")).map(({ id }) => id)).toEqual(["p1"]);
    expect(poolsToRescue(fails(whole, "x1"))).toEqual([]);
    expect(poolsToRescue(failing(whole))).toHaveLength(1);
  });
});
