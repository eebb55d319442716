import { TiB } from "../bytes/bytes";
import type { Plan } from "../document/plan";
import { boxWith, withRules } from "../testing/boxWith";
import { fiveYears as wish, last, waySetting } from "../testing/growing";
import { byLayout } from "./byLayout";
import { levelsFor } from "./levels";
import { cheapestWay } from "./search";
import { whatIf } from "./whatIf";
import { type GrowthWish, instanceOf } from "./wish";

const DAY = "2026-11-27";

const PATIENT = () => () => false;

const ASKED = { aim: "money", perYear: null, mostActs: null } as const;

const hybrid = withRules(boxWith("hybrid-box", "hybrid-1", [4 * TiB, 4 * TiB, 8 * TiB], [], {}, 4), {
  systemReserveBytes: 0,
});

const told = (plan: Plan, wished: GrowthWish) => last(whatIf(plan, wished, DAY, ASKED, PATIENT));

const centsOf = (plan: Plan, wished: GrowthWish) =>
  last(cheapestWay(instanceOf(plan, wished, DAY))).best?.cents ?? null;

test("what would change the first purchase: it stays within the falls that are told, and not beyond", () => {
  const { variations, fall } = told(hybrid, wish);
  expect(variations.find(({ of }) => of === "slower-fall")?.cents).toBe(
    centsOf(hybrid, { ...wish, fallPerYear: 0.05 }),
  );
  const { from, to } = fall!;
  expect(from === null || from <= wish.fallPerYear).toBe(true);
  expect(to === null || to >= wish.fallPerYear).toBe(true);
  expect([from, to]).not.toEqual([null, null]);
  const firstAt = (fallPerYear: number) =>
    told(hybrid, { ...wish, fallPerYear: fallPerYear * 2 }).variations.find(({ of }) => of === "slower-fall")!.first!;
  const now = firstAt(wish.fallPerYear);
  if (to !== null) {
    expect(firstAt(to).sizes).toEqual(now.sizes);
    expect(firstAt(Math.min(0.5, to + 0.01))).not.toEqual(now);
  }
  if (from !== null) expect(firstAt(from).sizes).toEqual(now.sizes);
});

test("each assumption is the same wish with one thing otherwise: by hand for those that are put into the wish", () => {
  const plan = { ...hybrid, box: { ...hybrid.box, bays: 5 } };
  const { variations } = told(plan, { ...wish, headroom: 0.1, bays: 4 });
  const of = Object.fromEntries(variations.map((each) => [each.of, each.cents]));
  const base = { ...wish, headroom: 0.1 };
  const demand = wish.demand.map((stored) => Math.round(wish.demand[0]! + (stored - wish.demand[0]!) / 2));
  expect(of).toMatchObject({
    "less-growth": centsOf(plan, { ...base, demand }),
    "less-free": centsOf(plan, wish),
    "one-bay-more": centsOf(plan, { ...base, bays: 5 }),
    retired: centsOf(plan, { ...base, retireAfterYears: 7 }),
    // Three drives stand in the three bays that are left, and more is stored than they can be changed to hold.
    "one-bay-fewer": centsOf(plan, { ...base, bays: 3 }),
  });
  // A change of level is good, not proved.
  expect(variations.filter(({ proved }) => !proved).map((each) => each.of)).toEqual(["one-more-lost"]);
  // A further box than there is: what one more bay would be worth.
  expect(told(hybrid, wish).variations.find((each) => each.of === "one-bay-more")?.cents).toBe(
    centsOf(plan, { ...wish, bays: 5 }),
  );
});

test("a limit of money a year is asked without, and binds all other questions", () => {
  const free = centsOf(hybrid, wish)!;
  const asked = { ...ASKED, perYear: Math.round(free * 0.45) };
  const { variations } = last(whatIf(hybrid, wish, DAY, asked, PATIENT));
  expect(variations.find(({ of }) => of === "no-limit")?.cents).toBe(free);
  expect(variations.find(({ of }) => of === "more-growth")?.cents ?? Infinity).toBeGreaterThan(free);
});

test("layout by layout: as it is, changed on the way, and made again from a backup", () => {
  const plan = withRules(boxWith("hybrid-box", "raid5", [8 * TiB, 8 * TiB, 8 * TiB], [], {}, 4), {
    systemReserveBytes: 0,
  });
  const layouts = ["raid5"] as const;
  const wished = { ...wish, layouts: [...layouts] };
  const ways = last(byLayout(plan, wished, ASKED, waySetting(plan, DAY), PATIENT));
  const of = Object.fromEntries(ways.map((way) => [way.layout, way]));
  expect(of.raid5).toMatchObject({ reached: "stays", cents: centsOf(plan, wished), proved: true });
  // RAID 5 and a hybrid of three like drives hold the same: from there the hybrid is never dearer.
  const again = boxWith("hybrid-box", "hybrid-1", [8 * TiB, 8 * TiB, 8 * TiB], [], {}, 4);
  expect(of["hybrid-1"]).toMatchObject({
    reached: "made-again",
    cents: centsOf(withRules(again, { systemReserveBytes: 0 }), { ...wish, layouts: ["hybrid-1"] }),
  });
  expect(of["hybrid-1"]!.cents!).toBeLessThanOrEqual(of.raid5!.cents!);
  expect(levelsFor(plan, plan.pools[0]!)).toEqual(expect.arrayContaining(["raid5", "raid6"]));
  expect(of.raid6).toMatchObject({ reached: "changes" });
  // What is not wished is not bought: where one failure is enough, a change of level does not pay.
  expect(of.raid6!.cents!).toBeLessThanOrEqual(of.raid5!.cents!);
  expect(ways.map(({ cents }) => cents ?? Infinity)).toEqual(
    ways.map(({ cents }) => cents ?? Infinity).sort((a, b) => a - b),
  );
  // Where two must be survived, RAID 5 alone is no way, and the change comes at once.
  const two = last(
    byLayout(
      plan,
      { ...wished, tolerance: 2, demand: wish.demand.map((d) => d / 2) },
      ASKED,
      waySetting(plan, DAY),
      PATIENT,
    ),
  );
  const ofTwo = Object.fromEntries(two.map((way) => [way.layout, way]));
  expect(ofTwo.raid5).toMatchObject({ cents: null, proved: true });
  expect(ofTwo.raid6).toMatchObject({ changesIn: 0 });
});

test("a first pool is asked for in each layout in which it can begin", () => {
  const empty = { ...boxWith("hybrid-box", "hybrid-1", [4 * TiB], [], {}, 4), pools: [], drives: [] } as Plan;
  const first = { ...wish, pool: null, layouts: [] };
  const ways = last(byLayout(empty, first, ASKED, waySetting(empty, DAY), PATIENT));
  expect(ways.length).toBeGreaterThan(2);
  for (const { layout, reached, cents } of ways) {
    expect(reached).toBe("begins");
    expect(cents).toBe(centsOf(empty, { ...first, layouts: [layout] }));
  }
});
