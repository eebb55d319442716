import { layoutOf } from "../layouts/registry";
import { fewestDrives } from "../layouts/problemsOfLayout";
import fc from "fast-check";
import { usableOfPool } from "../box/figures";
import { nominalBytes } from "../bytes/nominalBytes";
import { HANDS } from "../calendar/planCalendar";
import type { LayoutId, Plan, PlanCalendar, RuleSetId, StepBody } from "../document/plan";
import { wrongCount } from "../layouts/problemsOfLayout";
import { layouts } from "../layouts/registry";
import { predict } from "../prediction/predict";
import { ruleSets, rulesOf } from "../rules/ruleSets";
import { numbered } from "../testing/anySteps";
import { testDrive } from "../testing/arbitraries";
import { boxWith } from "../testing/boxWith";
import { usb } from "../testing/dataPlan";
import { costsOf } from "../walk/costs";
import { walkPlan } from "../walk/walkPlan";
import { bestOrder } from "./bestOrder";
import { yearsAfter } from "./oneAYear";
import { replaceInBestOrder } from "./oneByOne";
import { CAREFUL } from "./parts";
import { sequenceOf, sequences } from "./registry";
import { isWish, type SequenceId, type Wish } from "./sequence";
import { settingAt, trySequence, type Place, type Tried } from "./tried";

const DAY = "2026-11-23";
const calendar: PlanCalendar = {
  id: "c1",
  start: DAY,
  timeZone: "Europe/Lisbon",
  deliveryDays: 3,
  hands: HANDS["any-day"].windows,
  excluded: [],
};
const TB = (n: number) => nominalBytes(n * 1000);

/** A box of a set with a pool of a layout, "classic-raid raid5", of which a volume has a share; none without. */
function boxOf(
  kind: string,
  tb: number[],
  { shelf = [], bays = tb.length + 2, volume = 0 }: { shelf?: number[]; bays?: number; volume?: number } = {},
): Plan {
  const [set, layout] = kind.split(" ") as [RuleSetId, LayoutId | ""];
  const plan = boxWith(set, layout || "single", tb, shelf, {}, bays);
  if (!layout) return { ...plan, pools: [] };
  const [pool] = plan.pools;
  const bytes = Math.floor(usableOfPool(plan, pool!, rulesOf({ set })) * volume);
  if (bytes > 0)
    pool!.volumes.push({ id: "v1", name: "V", bytes, fileSystem: "btrfs", usedBytes: Math.floor(bytes / 2) });
  return plan;
}

const placeOf = (document: Plan): Place => ({
  document,
  walked: walkPlan(document, "TB", undefined, DAY),
  at: 0,
  today: DAY,
});

/** The sequence with its own wish, changed where something is said. */
function tried(document: Plan, id: SequenceId, change: Partial<Wish> = {}): Tried {
  const place = placeOf(document);
  const begun = sequenceOf(id).begin(settingAt(place));
  if (!isWish(begun)) throw new Error(begun.cannot);
  const result = trySequence(
    sequenceOf(id),
    { ...begun, ...change, variants: { ...begun.variants, ...change.variants } },
    place,
    calendar,
  );
  if (!result.ok) throw new Error(result.reason);
  return result.tried;
}

const kinds = (made: Tried) => made.command.steps.map((step) => step.kind);
const usableAfter = (made: Tried) => made.after.capacities.pool;

/**
 * What the pool would hold if it were made at once of the drives that it has in the end, everything claimed and
 * balanced.
 */
function madeAnew({ plan }: Tried["after"]["state"]): number {
  const pools = plan.pools.map((pool) => ({
    ...pool,
    volumes: [],
    groups: pool.groups.map(({ id, layout, drives, options }) => ({ id, layout, drives, options: options ?? {} })),
  }));
  return predict({ ...plan, pools }).pools.reduce((sum, pool) => sum + pool.usableBytes, 0);
}

const sizes = fc.constantFrom(1, 2, 3, 4, 8, 12);
const anyBoxOf = (sets: RuleSetId[]) =>
  fc
    .record({
      set: fc.constantFrom(...sets),
      tb: fc.array(sizes, { minLength: 1, maxLength: 6 }),
      shelf: fc.array(sizes, { maxLength: 3 }),
      pick: fc.nat(),
      spare: fc.integer({ min: 0, max: 3 }),
      volume: fc.constantFrom(0, 0.6, 1),
      holders: fc.boolean(),
    })
    .map(({ set, tb, shelf, pick, spare, volume, holders }) => {
      const rules = rulesOf({ set });
      const offered = layouts.filter(
        (layout) => rules.layouts.includes(layout.id) && !wrongCount(layout, tb.length, rules),
      );
      const layout = offered[pick % Math.max(1, offered.length)];
      const plan = boxOf(`${set} ${layout?.id ?? ""}`, tb, { shelf, bays: tb.length + spare, volume });
      return holders
        ? {
            ...plan,
            drives: plan.drives.map((drive) =>
              drive.id.startsWith("x") ? { ...drive, contents: { kind: "data" as const } } : drive,
            ),
          }
        : plan;
    });

const SETS = ruleSets.map((set) => set.id);
/** The kinds of box that have what a sequence is about. */
const boxesFor: Partial<Record<SequenceId, RuleSetId[]>> = {
  "mirror-onto-large": ["linux-host", "linux-host", "hybrid-box"],
  "hybrid-two": ["hybrid-box", "linux-host", "fixed-group"],
  "second-parity": ["parity-drive", "scheduled-parity", "classic-raid"],
  "larger-parity": ["parity-drive", "scheduled-parity", "classic-raid"],
};

/** What may still stand against a sequence that the box cannot do; each says so in its own words. */
const REASONS = new Set([
  "nothing-to-rebuild-from",
  "volumes-do-not-fit",
  "no-room-to-work",
  "zoned-stripe",
  "layout-not-offered",
  "wrong-drive-count",
  "too-small",
  "mixed-sectors",
  "no-free-bay",
]);

test.each(sequences.map((sequence) => [sequence.id, sequence] as const))(
  "%s, on any box: a plan without blocks, or exactly why not; its end is what building anew would give",
  (_id, sequence) => {
    let done = 0;
    fc.assert(
      fc.property(
        anyBoxOf(boxesFor[sequence.id] ?? SETS),
        fc.record({
          attached: fc.boolean(),
          spareFirst: fc.boolean(),
          test: fc.boolean(),
          backUp: fc.boolean(),
          verify: fc.boolean(),
          grow: fc.constant(true),
          together: fc.boolean(),
        }),
        fc.boolean(),
        (document, variants, careful) => {
          const place = placeOf(document);
          const setting = settingAt(place);
          const begun = sequence.begin(setting);
          if (!isWish(begun)) {
            expect(begun.cannot).toMatch(/^[A-Z].{20,}\.$|^[A-Z].*”\.$/);
            return;
          }
          const wish = careful ? begun : { ...begun, variants };
          const result = trySequence(sequence, wish, place, calendar);
          if (!result.ok) {
            expect(result.reason).toMatch(/^[A-Z0-9].{15,}\.$/);
            return;
          }
          const made = result.tried;
          if (made.blocks.length > 0) {
            for (const block of made.blocks) expect([...REASONS]).toContain(block.code);
            return;
          }
          done += 1;
          expect(made.moments.every((moment) => moment.walked?.done)).toBe(true);
          expect(usableAfter(made)).toBe(madeAnew(made.after.state));
          // Nothing that the owner has is erased without being named.
          const named = new Set(
            made.moments
              .flatMap((moment) => moment.walked?.cost.erased ?? [])
              .filter((id) => document.drives.some((drive) => drive.id === id)),
          );
          expect(made.erased.length).toBe(named.size);
          expect(made.hours.low).toBeLessThanOrEqual(made.hours.expected);
          expect(made.hours.expected).toBeLessThanOrEqual(made.hours.high);
          // What is bought is used, once.
          const used = JSON.stringify(made.command.steps);
          for (const drive of made.command.drives) expect(used).toContain(`"${drive.id}"`);
          expect(made.purchases.map((purchase) => purchase.drive.id).sort()).toEqual(
            made.command.drives.map((drive) => drive.id).sort(),
          );
          // The volumes and their files get what there is, where the box leaves that to its owner.
          if (setting.rules.growing === "by-hand" && made.after.state.plan.pools.length > 0) {
            const forgotten = made.moments
              .flatMap((moment) => moment.walked?.findings ?? [])
              .filter((finding) =>
                ["volume-not-grown", "file-system-not-grown", "space-not-claimed", "not-rebalanced"].includes(
                  finding.code,
                ),
              );
            if (
              !["protect-drive", "mirror-onto-large", "second-parity", "larger-parity"].includes(sequence.id) &&
              (document.pools[0]?.volumes[0]?.bytes ?? 0) >= 0.999 * made.before.capacities.pool
            )
              expect(forgotten.map((finding) => finding.code)).toEqual([]);
          }
        },
      ),
      { numRuns: 150 },
    );
    // The boxes are such that each sequence is really tried.
    expect(done).toBeGreaterThan(0);
  },
);

describe("one by one", () => {
  test("the careful plan, by hand: tests and backup together, each swap, one claim at the end, grown, verified", () => {
    const made = tried(boxOf("classic-raid raid5", [4, 4, 4], { volume: 1 }), "one-by-one", {
      bytes: TB(8),
      drives: ["d1", "d2", "d3"],
    });
    expect(kinds(made).join(" ")).toBe(
      "test-drive test-drive test-drive back-up replace-drive replace-drive replace-drive claim-space " +
        "grow-volume grow-file-system verify",
    );
    expect(made.command.steps.slice(1, 4).every((step) => step.together)).toBe(true);
    expect([made.before.capacities.pool, usableAfter(made)].map((bytes) => Math.round(bytes / 1e12))).toEqual([8, 16]);
    expect(made.purchases).toHaveLength(3);
    // Three rebuilds of 4 TB at 60 % of 150 MB/s: 12.35 h each.
    expect(made.bareHours).toBeCloseTo((3 * 4_000_787_030_016) / 90e6 / 3600, 0);
  });
  test("drives on the shelf are used before any is bought, and are named as erased", () => {
    const made = tried(boxOf("classic-raid raid5", [4, 4, 4], { shelf: [8, 8] }), "one-by-one");
    expect(made.purchases).toHaveLength(1);
    expect(made.erased).toHaveLength(2);
  });
  test("the worst drive goes first", () => {
    const plan = boxOf("hybrid-box hybrid-1", [4, 4, 4, 4]);
    const drives = plan.drives.map((drive) =>
      drive.id === "d3"
        ? { ...drive, health: { state: "watch" as const, reallocatedSectors: 9 } }
        : drive.id === "d4"
          ? { ...drive, health: { state: "failing" as const, pendingSectors: 4 } }
          : drive,
    );
    const made = tried({ ...plan, drives }, "one-by-one", { bytes: TB(8), drives: ["d1", "d2", "d3", "d4"] });
    expect(made.command.steps.flatMap((step) => (step.kind === "replace-drive" ? [step.drive] : []))).toEqual([
      "d4",
      "d3",
      "d1",
      "d2",
    ]);
  });
  test("the parity drive goes before any data drive", () => {
    const made = tried(boxOf("parity-drive parity-drive-1", [4, 8, 4]), "one-by-one", {
      bytes: TB(12),
      drives: ["d1", "d2", "d3"],
    });
    expect(kinds(made).filter((kind) => kind.endsWith("-drive") && kind !== "test-drive")).toEqual([
      "change-parity-drive",
      "replace-drive",
      "replace-drive",
    ]);
    const box = boxOf("parity-drive parity-drive-1", [4, 8, 4]);
    const wished = { ...tryWish("one-by-one", box), bytes: TB(12), drives: ["d1"] };
    const without = trySequence(sequenceOf("one-by-one"), wished, placeOf(box), calendar);
    expect(without).toMatchObject({
      ok: false,
      reason: expect.stringContaining("Change the parity drive too") as string,
    });
  });
});

const tryWish = (id: SequenceId, document: Plan): Wish => {
  const begun = sequenceOf(id).begin(settingAt(placeOf(document)));
  if (!isWish(begun)) throw new Error(begun.cannot);
  return begun;
};

describe("the order in which space comes earliest", () => {
  /** Missing space over the hours, as the walk of the steps itself has it. */
  const missingOf = (plan: Plan, steps: StepBody[]): number => {
    const made = walkPlan(numbered(plan, steps));
    const end = made.moments.at(-1)!.capacities.pool;
    return made.moments
      .slice(1)
      .reduce(
        (sum, moment, i) =>
          sum + Math.max(0, end - made.moments[i]!.capacities.pool) * moment.walked!.cost.hours.expected,
        0,
      );
  };
  const orders = (ids: string[]): string[][] =>
    ids.length < 2
      ? [ids]
      : ids.flatMap((id, i) => orders([...ids.slice(0, i), ...ids.slice(i + 1)]).map((rest) => [id, ...rest]));
  const wish = { variants: { ...CAREFUL, attached: false } };

  test("is best of all orders, by walking each, for any hybrid and chunk boxes and others", () => {
    fc.assert(
      fc.property(
        fc.constantFrom<[RuleSetId, LayoutId]>(
          ["hybrid-box", "hybrid-1"],
          ["hybrid-box", "hybrid-2"],
          ["linux-host", "hybrid-1"],
          ["chunk-copies", "copies-2"],
          ["classic-raid", "raid5"],
          ["parity-drive", "parity-drive-1"],
        ),
        fc.array(fc.constantFrom(1, 2, 3, 4, 6), { minLength: 3, maxLength: 4 }),
        ([set, layout], tb) => {
          if (tb.length < fewestDrives(layoutOf(layout), rulesOf({ set }))) return;
          const plan = boxOf(`${set} ${layout}`, tb, { shelf: tb.map(() => 8) });
          const ids = plan.pools[0]!.groups[0]!.drives;
          const news = plan.drives.filter((drive) => drive.id.startsWith("x"));
          const setting = settingAt(placeOf(plan));
          const best = replaceInBestOrder("g1", ids, news, wish, setting);
          expect(best.proved).toBe(true);
          // What the box keeps of its pool is missing from every order alike.
          const kept = 1 - rulesOf({ set }).poolReserveShare;
          // On a Linux host the order decides how many bands there are at the end, and with them some MiB of metadata.
          const near = set === "linux-host" ? 1e-4 : 1e-9;
          expect(Math.abs(missingOf(plan, best.steps) - best.missing * kept)).toBeLessThanOrEqual(
            near * (1e12 + best.missing),
          );
          const parity = layoutOf(layout).dedicatedParity ? best.drives[0]! : null;
          for (const order of orders(ids)) {
            if (parity !== null && order[0] !== parity) continue;
            // Each order by its own swaps, one after the other.
            let steps: StepBody[] = [];
            order.forEach((id, k) => {
              const at = walkPlan(numbered(plan, steps)).moments.at(-1)!.state.plan;
              steps = [...steps, ...replaceInBestOrder("g1", [id], [news[k]!], wish, { ...setting, plan: at }).steps];
            });
            expect(missingOf(plan, steps)).toBeGreaterThanOrEqual(best.missing * kept * (1 - near));
          }
        },
      ),
      { numRuns: 40 },
    );
  });
  test("eight drives of three sizes in a hybrid, against each of the 560 orders", () => {
    const tb = [2, 2, 2, 3, 3, 3, 6, 6];
    const plan = boxOf("hybrid-box hybrid-1", tb, { shelf: tb.map(() => 8), bays: 8 });
    const best = replaceInBestOrder(
      "g1",
      plan.pools[0]!.groups[0]!.drives,
      plan.drives.slice(8),
      wish,
      settingAt(placeOf(plan)),
    );
    const seen = new Set<string>();
    const words = (rest: number[], word: number[]): void => {
      if (rest.length === 0) seen.add(word.join(","));
      else
        for (const size of new Set(rest))
          words(
            rest.filter((_, i) => i !== rest.indexOf(size)),
            [...word, size],
          );
    };
    words(tb, []);
    expect(seen.size).toBe(560);
    for (const word of seen) {
      const left = tb.map((size, i) => ({ size, id: `d${i + 1}` }));
      const steps = word.split(",").map((size, k): StepBody => {
        const i = left.findIndex((each) => each.size === Number(size));
        return { kind: "replace-drive", drive: left.splice(i, 1)[0]!.id, by: `x${k + 1}`, how: "pulled" };
      });
      expect(missingOf(plan, steps)).toBeGreaterThanOrEqual(best.missing * (1 - 1e-9));
    }
  });
  test("the search itself, against every order of up to eight places with any costs", () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 3 }), { minLength: 1, maxLength: 6 }),
        fc.array(fc.integer({ min: 0, max: 50 }), { minLength: 64, maxLength: 64 }),
        (of, weights) => {
          // What a state is depends on how many of each kind have been changed; what the next costs, on the state and
          // its kind.
          const cost = (counts: Record<number, number>, kind: number) =>
            weights[((counts[1] ?? 0) * 17 + (counts[2] ?? 0) * 5 + (counts[3] ?? 0) * 3 + kind) % 64]!;
          const problem = {
            count: of.length,
            kindOf: (place: number) => String(of[place]),
            start: {} as Record<number, number>,
            change: (state: Record<number, number>, place: number) => ({
              state: { ...state, [of[place]!]: (state[of[place]!] ?? 0) + 1 },
              missing: cost(state, of[place]!),
            }),
          };
          const along = (order: number[]) =>
            order.reduce(
              ({ state, sum }, place) => {
                const next = problem.change(state, place);
                return { state: next.state, sum: sum + next.missing };
              },
              { state: {} as Record<number, number>, sum: 0 },
            ).sum;
          const found = bestOrder(problem);
          expect([...found.places].sort()).toEqual(of.map((_, i) => i));
          expect(found.missing).toBe(along(found.places));
          expect(found.missing).toBe(
            Math.min(...orders(of.map((_, i) => String(i))).map((order) => along(order.map(Number)))),
          );
        },
      ),
      { numRuns: 60 },
    );
  });
});

test("steps that are planned for later and could not be carried out any more are counted", () => {
  const box = boxOf("classic-raid raid5", [4, 4, 4], { shelf: [8], bays: 4 });
  const planned = numbered(box, [
    { kind: "widen-group", group: "g1", drives: ["x1"] },
    { kind: "verify", pool: "p1" },
  ]);
  expect(tried(planned, "mirror-to-parity", {}).breaks).toBe(1);
  // Drives that planned steps name are left to them.
  expect(tried(planned, "one-by-one", { bytes: TB(8), drives: ["d1"] })).toMatchObject({
    breaks: 0,
    purchases: [{ price: 162 }],
  });
});

describe("what a plan costs", () => {
  const box = boxOf("classic-raid raid5", [4, 4, 4]);
  test(
    "drives to buy once each, by their own price, else the list's next larger, else an example that says so; and " +
      "what is freed",
    () => {
      const bought = (id: string, more: object) => testDrive(id, TB(8), { toBuy: true, ...more });
      const drives = [
        ...box.drives,
        bought("b1", { price: 100 }),
        bought("b2", {}),
        bought("b3", { bytes: TB(40) }),
        bought("b4", {}),
      ];
      const steps: StepBody[] = [
        { kind: "test-drive", drive: "b1" },
        { kind: "replace-drive", drive: "d1", by: "b1", how: "pulled" },
        { kind: "replace-drive", drive: "d2", by: "b2", how: "pulled" },
        { kind: "replace-drive", drive: "d3", by: "b3", how: "pulled" },
      ];
      const prices = [
        { bytes: TB(10), price: 200, medium: "hdd" as const, bus: "sata" as const, label: "" },
        { bytes: TB(4), price: 50, medium: "hdd" as const, bus: "sata" as const, label: "" },
      ];
      const costs = costsOf(walkPlan({ ...numbered(box, steps), drives, prices }));
      expect(costs.purchases.map(({ drive, price, step }) => [drive.id, price, step])).toEqual([
        ["b1", 100, "s1"],
        ["b2", 200, "s3"],
        ["b3", null, "s4"],
      ]);
      expect([costs.total, costs.unpriced, costs.freed.map((drive) => drive.id)]).toEqual([300, 1, ["d1", "d2", "d3"]]);
      expect(
        costsOf(
          walkPlan({ ...numbered(box, steps.slice(0, 1)), drives: drives.map(({ price: _price, ...drive }) => drive) }),
        ).purchases[0]!.isExample,
      ).toBe(true);
    },
  );
});

describe("levels", () => {
  test("a mirror goes to RAID 5 and on to RAID 6, a level at a time, grown after the first", () => {
    const made = tried(boxOf("classic-raid raid1", [4, 4], { volume: 1, bays: 4 }), "mirror-to-parity");
    expect(kinds(made).join(" ")).toBe(
      "test-drive test-drive back-up change-level grow-volume grow-file-system change-level verify",
    );
    expect(made.does).toMatch(/from RAID 1 to RAID 5 and on to RAID 6 with 2 × 4\sTB more/);
    expect(made.after.tolerance).toEqual([2]);
    expect(Math.round(usableAfter(made) / 1e12)).toBe(8);
  });
  test("a box that changes no levels says to go through a backup", () => {
    const result = trySequence(
      sequenceOf("mirror-to-parity"),
      { ...tryWish("mirror-to-parity", boxOf("classic-raid raid1", [4, 4])) },
      placeOf({ ...boxOf("fixed-group raid1", [4, 4]) }),
      calendar,
    );
    expect(result).toMatchObject({
      ok: false,
      reason: expect.stringContaining("Move through a backup instead") as string,
    });
  });
  test("a hybrid keeps its drives where its volumes still fit, and gets one more where they do not", () => {
    expect(tried(boxOf("hybrid-box hybrid-1", [4, 4, 4, 4], { volume: 0.6 }), "hybrid-two").purchases).toHaveLength(0);
    expect(tried(boxOf("hybrid-box hybrid-1", [4, 4, 4, 4], { volume: 1 }), "hybrid-two").purchases).toHaveLength(1);
  });
  test("a second parity drive, and a larger one", () => {
    const box = boxOf("parity-drive parity-drive-1", [4, 8, 4], { shelf: [8] });
    expect(tried(box, "second-parity").after.tolerance).toEqual([2]);
    expect(
      tried(box, "larger-parity", { bytes: TB(12) }).command.steps.find((step) => step.kind === "change-parity-drive"),
    ).toMatchObject({ drive: "d2" });
  });
});

describe("one each year", () => {
  test(
    "into the free bays first, then in the place of the smallest; each year's steps wait for its day, and the " +
      "plan gets a calendar",
    () => {
      const made = tried(boxOf("hybrid-box hybrid-1", [4, 4, 8], { bays: 4, volume: 1 }), "one-a-year", {
        bytes: TB(8),
        count: 3,
      });
      expect(made.command.steps.flatMap((step) => (step.notBefore ? [step.notBefore] : []))).toEqual([
        "2027-11-23",
        "2028-11-23",
      ]);
      expect(kinds(made).filter((kind) => ["widen-group", "replace-drive"].includes(kind))).toEqual([
        "widen-group",
        "replace-drive",
        "replace-drive",
      ]);
      expect(made.command.calendar).toEqual(calendar);
      expect(made.blocks).toEqual([]);
    },
  );
  test("when there is nothing left to change, it says after how many years", () => {
    const box = boxOf("classic-raid raid1", [4, 4], { bays: 2 });
    const result = trySequence(
      sequenceOf("one-a-year"),
      { ...tryWish("one-a-year", box), count: 5 },
      placeOf(box),
      calendar,
    );
    expect(result).toMatchObject({
      ok: false,
      reason: expect.stringMatching(/^After 2 years every drive has/) as string,
    });
  });
  test("striped mirrors that take drives by twos are not widened by one: the smallest is changed", () => {
    const made = tried(boxOf("classic-raid raid10", [4, 4, 4, 4], { bays: 8 }), "one-a-year");
    expect(kinds(made)).not.toContain("widen-group");
    expect(kinds(made).filter((kind) => kind === "replace-drive")).toHaveLength(3);
    expect(made.blocks).toEqual([]);
  });
  test("a leap day", () =>
    expect([1, 2, 4].map((years) => yearsAfter("2028-02-29", years))).toEqual([
      "2029-02-28",
      "2030-02-28",
      "2032-02-29",
    ]));
});

describe("the others", () => {
  test("a further group gives its space at once, in minutes", () => {
    const made = tried(boxOf("classic-raid raid5", [4, 4, 4], { bays: 6, volume: 1 }), "extra-group", {
      variants: { ...CAREFUL, test: false },
    });
    expect(kinds(made)).toEqual(["add-group", "grow-volume", "grow-file-system"]);
    // The space is given out while the group is filled, for 12.3 hours in which a failed drive would lose data.
    expect(made.moments.map(({ walked }) => [walked!.from, walked!.done])).toEqual([0, 0, 0].map((at) => [at, true]));
    expect([made.hours.expected, made.bareHours].map((each) => each.toFixed(1))).toEqual(["12.3", "12.3"]);
    expect(Math.round(usableAfter(made) / 1e12)).toBe(16);
  });
  test("to another box through a backup: its rules hold from then on", () => {
    const made = tried(boxOf("fixed-group raid5", [4, 4, 8, 8], { volume: 1 }), "through-backup", {
      box: { name: "New", bays: 6, rules: { set: "hybrid-box" } },
      layout: "hybrid-1",
    });
    expect(kinds(made).slice(0, 2)).toEqual(["back-up", "rebuild-from-backup"]);
    expect(made.erased).toHaveLength(4);
    expect(made.after.state.plan.box).toMatchObject({ bays: 6, rules: { set: "hybrid-box" } });
    expect(Math.round(usableAfter(made) / 1e12)).toBe(16);
    expect(made.offlineHours).toBeGreaterThan(1);
  });
  test("a drive that holds data is not erased when it is protected", () => {
    const box = boxOf("desktop-mirror", [], { shelf: [4, 4], bays: 2 });
    const drives = box.drives.map((drive) =>
      drive.id === "x1" ? { ...drive, contents: { kind: "data" as const, detail: "photos" } } : drive,
    );
    const made = tried({ ...box, drives }, "protect-drive");
    expect(made.erased).toHaveLength(1);
    expect(made.moments.flatMap((moment) => moment.walked!.cost.erased)).toEqual(["x2"]);
    expect(made.after.tolerance).toEqual([1]);
  });
  test(
    "two small drives onto a large one that is named, though it holds their backup: erased, and said what that " +
      "means",
    () => {
      const box = {
        ...boxOf("linux-host single", [1, 1], { shelf: [3], volume: 0.8 }),
        dataSets: [{ id: "s1", name: "Scores", volume: "v1", bytes: 5e11, worth: "useful" as const }],
        backups: [{ ...usb, lastVerified: DAY, dataSets: ["s1"], drive: "x1" }],
      };
      const drives = box.drives.map((drive) =>
        drive.id === "x1" ? { ...drive, contents: { kind: "data" as const, detail: "backup" } } : drive,
      );
      const made = tried({ ...box, drives }, "mirror-onto-large", { by: "x1" });
      expect(made.after.state.plan.pools[0]!.groups[0]).toMatchObject({
        layout: "mirror-onto-one",
        drives: ["d1", "d2", "x1"],
      });
      expect(made.warnings.map((finding) => finding.code)).toContain("backup-becomes-redundancy");
      expect(made.erased).toHaveLength(1);
    },
  );
});

describe("several drives replaced all at once, only where the pool bears it", () => {
  const together = (kind: string, tb: number[], drives: string[], attached = false) => {
    const box = boxOf(kind, tb);
    const wish = tryWish("one-by-one", box);
    const variants = { ...wish.variants, attached, together: true, backUp: false, test: false };
    const wished = { ...wish, drives, bytes: TB(8), variants };
    return trySequence(sequenceOf("one-by-one"), wished, placeOf(box), calendar);
  };
  test.each<[string, number[], string[]]>([
    ["linux-host raid6", [4, 4, 4, 4], ["d1", "d2"]],
    ["fixed-group triple-parity", [4, 4, 4, 4, 4], ["d1", "d2", "d3"]],
    ["hybrid-box hybrid-2", [4, 4, 4, 4], ["d1", "d2"]],
    ["parity-drive parity-drive-2", [4, 4, 8, 8], ["d1", "d2"]],
    ["parity-drive parity-drive-2", [4, 4, 8, 8], ["d3", "d4"]],
  ])("%s of %j: %j in the hours of one", (kind, tb, drives) => {
    const result = together(kind, tb, drives);
    if (!result.ok) throw new Error(result.reason);
    const { blocks, moments } = result.tried;
    expect(blocks).toEqual([]);
    const fills = moments.flatMap(({ walked }) => (walked && walked.cost.unready.length > 0 ? [walked] : []));
    expect(fills).toHaveLength(drives.length);
    expect(new Set(fills.map(({ from }) => from)).size).toBe(1);
    expect(fills.at(-1)!.exposure[0]!.redundancy).toBeLessThan(fills[0]!.exposure[0]!.usual);
  });
  test.each<[string, number[], string[], RegExp]>([
    ["linux-host raid5", [4, 4, 4], ["d1", "d2"], /Without 2 drives at once data is lost: change them one after/],
    ["linux-host raid6", [4, 4, 4, 4], ["d1", "d2", "d3"], /Without 3 drives at once data is lost/],
    ["linux-host raid10", [4, 4, 4, 4], ["d1", "d3"], /are filled one at a time: change them one after the other/],
  ])("%s of %j: not %j", (kind, tb, drives, reason) => {
    const result = together(kind, tb, drives);
    expect(result.ok ? "" : result.reason).toMatch(reason);
  });
  test("drives of chunks that have been emptied leave together, and the new ones join in one step", () => {
    const box = boxOf("chunk-copies copies-2", [4, 4, 4, 4], { volume: 0.1 });
    box.pools[0]!.groups[0]!.filled = { d1: 4e11, d2: 4e11, d3: 0, d4: 0 };
    const { variants } = tryWish("one-by-one", box);
    const all = { ...variants, attached: false, together: true, backUp: false, test: false };
    const made = tried(box, "one-by-one", { drives: ["d3", "d4"], bytes: TB(8), variants: all });
    expect(kinds(made).slice(0, 4).join(" ")).toBe("remove-drive remove-drive widen-group rebalance");
    expect([made.blocks, made.erased]).toEqual([[], []]);
  });
  test("nor while the old ones stay attached", () => {
    const result = together("linux-host raid6", [4, 4, 4, 4], ["d1", "d2"], true);
    expect(result.ok ? "" : result.reason).toMatch(/stay in their bays meanwhile are replaced one after the other/);
  });
});

describe("what a sequence proposes is no step down", () => {
  const refusal = (document: Plan, id: SequenceId, change: Partial<Wish> = {}) => {
    const place = placeOf(document);
    const begun = sequenceOf(id).begin(settingAt(place));
    if (!isWish(begun)) return begun.cannot;
    const result = trySequence(sequenceOf(id), { ...begun, ...change }, place, calendar);
    return result.ok ? `does: ${result.tried.does}` : result.reason;
  };
  test("a mirror on a box that has nothing better is not made anew as separate drives", () =>
    expect(refusal(boxOf("classic-raid raid1", [4, 4], { volume: 1 }), "through-backup")).toMatch(
      /has RAID 1 over these drives already, and no other layout/,
    ));
  test("a layout that bears no failure is said to", () =>
    expect(refusal(boxOf("classic-raid raid1", [4, 4], { volume: 1 }), "through-backup", { layout: "single" })).toMatch(
      /After that, if any drive fails, data is lost\.$/,
    ));
  test("pools that take single drives are widened; striped mirrors get striped mirrors; a stripe is not helped", () => {
    expect(refusal(boxOf("chunk-copies copies-2", [4, 4], { bays: 6 }), "extra-group")).toMatch(/widen it instead/);
    expect(refusal(boxOf("classic-raid raid10", [4, 4, 4, 4], { bays: 8 }), "extra-group")).toMatch(
      /does: 4 × 4.TB join P as another RAID 10 group/,
    );
    expect(refusal(boxOf("classic-raid raid0", [4, 4], { bays: 8 }), "extra-group")).toMatch(
      /If any drive of P fails, data is lost/,
    );
  });
});
