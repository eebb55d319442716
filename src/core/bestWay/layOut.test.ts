import { dataOfPool } from "../box/figures";
import { rulesOfBox } from "../box/rulesOfBox";
import { nominalBytes } from "../bytes/nominalBytes";
import type { LayoutId, Plan, RuleSetId } from "../document/plan";
import { EXAMPLE_PRICES } from "../drives/priceList";
import { layoutOf } from "../layouts/registry";
import { boxWith } from "../testing/boxWith";
import { drawnFrom, last, waySetting } from "../testing/growing";
import { bestWaySteps, lasts, walkedWay } from "./bestWay";
import { boxesOf } from "./boxes";
import { frontSteps } from "./front";
import { wayOf } from "./label";
import { cheapestWay } from "./search";
import { type GrowthWish, instanceOf } from "./wish";

const DAY = "2026-11-27";

const MONTHS = 36;

const TIMES = Number(process.env.PROPERTY_TIMES ?? 1);

/** Kinds of box with a layout that they offer, and of how many drives a group begins. */
const CASES: readonly [RuleSetId, LayoutId, number][] = [
  ["hybrid-box", "hybrid-1", 2],
  ["hybrid-box", "hybrid-2", 4],
  ["hybrid-box", "raid5", 3],
  ["linux-host", "hybrid-1", 3],
  ["linux-host", "raid5", 3],
  ["linux-host", "raid6", 4],
  ["linux-host", "raid10", 4],
  ["linux-host", "copies-2", 2],
  ["chunk-copies", "copies-2", 2],
  ["chunk-copies", "copies-3", 3],
  ["fixed-group", "raid1", 2],
  ["fixed-group", "raid5", 3],
  ["classic-raid", "raid5", 3],
  ["classic-raid", "raid6", 4],
  ["parity-drive", "parity-drive-1", 3],
];

const ASKED = { aim: "money", perYear: null, mostActs: null } as const;

function drawn(set: RuleSetId, layout: LayoutId, count: number, seed: number): { plan: Plan; wish: GrowthWish } {
  const next = drawnFrom(seed * 31 + set.length * 7 + layout.length);
  const sizes = Array.from({ length: count }, () => [3, 4, 6, 8][Math.floor(next() * 4)] as number);
  const volumes = [{ id: "v1", name: "", bytes: 1e12, fileSystem: "ext4" as const }];
  const plan = boxWith(set, layout, sizes, [], { volumes }, 6);
  const [now, growth] = [1.5e12 + next() * 2e12, (0.08 + next() * 0.2) * 1e12];
  const wish: GrowthWish = {
    pool: "p1",
    months: MONTHS,
    demand: Array.from({ length: MONTHS }, (_, month) => Math.round(now + growth * (month + 1))),
    headroom: 0.2,
    tolerance: 1,
    layouts: [layout],
    bays: 6,
    prices: EXAMPLE_PRICES.filter((_, i) => i % 2 === 0).map(({ bytes, price }) => ({ bytes, cents: price * 100 })),
    fallPerYear: 0.12,
    aim: "money",
    retireAfterYears: layout !== "raid1" && seed % 2 === 0 ? 4 : null,
    centsPerDriveYear: 0,
    equalPairs: false,
  };
  return { plan, wish };
}

test.each(CASES)("what is promised of a way is what the walk predicts: %s, %s", (set, layout, count) => {
  for (let seed = 1; seed <= 2 * TIMES; seed += 1) {
    const { plan, wish } = drawn(set, layout, count, seed);
    const instance = instanceOf(plan, wish, DAY);
    const { way, proved, least } = last(bestWaySteps(instance, ASKED, waySetting(plan, DAY)));
    expect([way && lasts(way), way?.blocks.map(({ message }) => message)]).toEqual([true, []]);
    if (!way) continue;
    expect(way.cents).toBe(way.acts.flatMap(({ bought }) => bought).reduce((sum, { cents }) => sum + cents, 0));
    if (layout !== "parity-drive-1" && layout !== "raid10") expect([proved, least]).toEqual([true, way.cents]);
    const boxes = boxesOf(instance);
    const promised = last(cheapestWay(instance, boxes)).best;
    const acts = wayOf(promised!).filter(({ act }) => act.kind !== "take-out");
    if (acts.length !== way.acts.length) continue;
    if (layoutOf(layout).cutsAtSizes) continue;
    expect(way.data).toEqual(acts.map(({ box }) => boxes.dataOf(box)));
  }
});

test.each([
  ["hybrid-box", "hybrid-1", 3],
  ["hybrid-box", "raid5", 4],
  ["classic-raid", "raid5", 3],
] as const)("data is exposed for as many hours as the search promises: %s, %s", (set, layout, count) => {
  let exposed = 0;
  for (let seed = 1; seed <= 3 * TIMES; seed += 1) {
    const { plan, wish } = drawn(set, layout, count, seed * 2);
    const next = drawnFrom(seed);
    const drives = plan.drives.map((drive) => ({
      ...drive,
      bytes: nominalBytes([2000, 3000, 6000, 10_000, 12_000][Math.floor(next() * 5)] as number),
    }));
    const mixed = { ...plan, drives };
    const held = dataOfPool(mixed, mixed.pools[0]!, rulesOfBox(mixed));
    const demand = wish.demand.map((_, month) => held * (0.6 + month * 0.012));
    const instance = instanceOf(
      mixed,
      { ...wish, demand, bays: count + (seed % 2), headroom: 0, retireAfterYears: null },
      DAY,
    );
    const boxes = boxesOf(instance);
    for (const label of [
      last(cheapestWay(instance, boxes)).best!,
      ...last(frontSteps(instance, "hours", boxes)).ways,
    ]) {
      const way = walkedWay(instance, label, waySetting(mixed, DAY));
      expect([seed, label.cents, Math.abs(way!.exposedHours - label.hours) < 0.05]).toEqual([seed, label.cents, true]);
      if (label.hours > 0) exposed += 1;
    }
  }
  expect(exposed).toBeGreaterThan(1);
});

test("each act of a month is done on its day, with the care of ready-made steps", () => {
  const { plan, wish } = drawn("linux-host", "raid5", 3, 1);
  const { way } = last(bestWaySteps(instanceOf(plan, wish, DAY), ASKED, waySetting(plan, DAY)));
  const kinds = way!.command.steps.map(({ kind }) => kind);
  for (const kind of ["test-drive", "back-up", "widen-group", "grow-volume", "grow-file-system", "verify"])
    expect(kinds).toContain(kind);
  const months = new Set(way!.acts.map(({ month }) => month).filter((month) => month > 0));
  expect(way!.command.steps.filter(({ notBefore }) => notBefore !== undefined)).toHaveLength(months.size);
  expect(way!.plan.calendar?.start).toBe(DAY);
});

test("a hybrid whose bands stay as they were cut gets a way that holds all the same", () => {
  // Made at once of 8, 8, 8 and 4 TB it would hold more than its bands, cut at 3 and 4 TB, let it hold on the way.
  const plan = boxWith("hybrid-box", "hybrid-2", [8, 8, 3, 4], [], {}, 8);
  const { wish } = drawn("hybrid-box", "hybrid-2", 4, 1);
  const demand = Array.from({ length: MONTHS }, (_, month) => nominalBytes(4000) + month * 250e9);
  const instance = instanceOf(plan, { ...wish, demand, tolerance: 2, retireAfterYears: null }, DAY);
  const { way, least } = last(bestWaySteps(instance, ASKED, waySetting(plan, DAY)));
  expect(way && lasts(way)).toBe(true);
  expect(way!.cents).toBeGreaterThanOrEqual(least);
});
