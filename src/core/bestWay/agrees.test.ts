import { dataOfPool } from "../box/figures";
import { rulesOfBox } from "../box/rulesOfBox";
import type { LayoutId, Plan, RuleSetId } from "../document/plan";
import { EXAMPLE_PRICES } from "../drives/priceList";
import { placementsIn, usableWith } from "../nextDrive/placements";
import { settingAt, trySequence } from "../sequences/tried";
import { sequenceOf } from "../sequences/registry";
import { CAREFUL } from "../sequences/parts";
import { isWish } from "../sequences/sequence";
import { boxWith } from "../testing/boxWith";
import { drawnFrom, fiveYears, last, waySetting } from "../testing/growing";
import { walkPlan } from "../walk/walkPlan";
import { bestWaySteps } from "./bestWay";
import { type GrowthWish, instanceOf } from "./wish";

const DAY = "2026-11-27";

const ASKED = { aim: "money", perYear: null, mostActs: null } as const;

/** Boxes that keep nothing of a pool for themselves, so that what its groups hold is what is usable. */
const CASES: readonly [RuleSetId, LayoutId, number][] = [
  ["hybrid-box", "hybrid-1", 3],
  ["hybrid-box", "raid5", 3],
  ["linux-host", "raid6", 4],
  ["classic-raid", "raid5", 3],
];

const prices = EXAMPLE_PRICES.filter(({ medium }) => medium === "hdd");

function drawn(set: RuleSetId, layout: LayoutId, count: number, seed: number): Plan {
  const next = drawnFrom(seed * 97 + count);
  const sizes = Array.from({ length: count }, () => [3, 4, 6, 8][Math.floor(next() * 4)] as number);
  return boxWith(set, layout, sizes, [], {}, count + (seed % 2));
}

const wishFor = (layout: LayoutId, plan: Plan, months: number): GrowthWish => ({
  ...fiveYears,
  months,
  demand: Array.from({ length: months }, () => 0),
  layouts: [layout],
  bays: plan.box.bays,
  prices: prices.map(({ bytes, price }) => ({ bytes, cents: price * 100 })),
});

test.each(CASES)(
  "one purchase for today is the one that the next drive shows for the money: %s, %s",
  (set, layout, count) => {
    let single = 0;
    for (let seed = 1; seed <= 8; seed += 1) {
      const plan = drawn(set, layout, count, seed);
      const pool = plan.pools[0]!;
      const now = dataOfPool(plan, pool, rulesOfBox(plan));
      const options = placementsIn(pool)
        .filter(({ kind }) => kind !== "further-group")
        .flatMap((at) =>
          prices.map(({ bytes, medium, bus, price }) => {
            const outcome = usableWith(plan, pool, [{ bytes, medium, bus, at }]);
            return { at, bytes, cents: price * 100, held: outcome.ok ? outcome.usableBytes : 0 };
          }),
        );
      const gaining = options.filter(({ held }) => held > now).sort((a, b) => a.held - b.held);
      // As much as one of them gives, whichever: each of the sizes that gain is wanted once.
      const need = gaining[Math.floor(drawnFrom(seed)() * gaining.length)]?.held;
      if (!need) continue;
      const instance = { ...instanceOf(plan, wishFor(layout, plan, 1), DAY), needs: Float64Array.of(need) };
      const { way } = last(bestWaySteps(instance, ASKED, waySetting(plan, DAY)));
      const cheapest = Math.min(...options.filter(({ held }) => held >= need).map(({ cents }) => cents));
      expect([seed, way!.cents <= cheapest]).toEqual([seed, true]);
      if (way!.acts.length !== 1) continue;
      single += 1;
      expect([seed, way!.cents]).toEqual([seed, cheapest]);
      const [act] = way!.acts;
      const same = options.filter(
        ({ at, bytes }) =>
          bytes === act!.bought[0]!.bytes &&
          (at.kind === "add" ? act!.kind === "add" : act!.gone.includes(at.kind === "replace" ? at.drive : "")),
      );
      expect(same.map(({ held }) => held)).toEqual([way!.data[0]]);
    }
    expect(single).toBeGreaterThan(1);
  },
);

test.each(CASES)(
  "where one size is sold it buys no sooner than one drive now and one each year: %s, %s",
  (set, layout, count) => {
    const plan = boxWith(
      set,
      layout,
      Array.from({ length: count }, () => 4),
      [],
      {},
      count + 1,
    );
    const pool = plan.pools[0]!;
    const place = { document: plan, walked: walkPlan(plan, "TB", undefined, DAY), at: 0, today: DAY };
    const sequence = sequenceOf("one-a-year");
    const begun = sequence.begin(settingAt(place));
    if (!isWish(begun)) throw new Error(begun.cannot);
    const bytes = prices.find((price) => price.bytes > 7e12)!.bytes;
    const made = trySequence(
      sequence,
      { ...begun, bytes, count: 3, variants: CAREFUL },
      place,
      waySetting(plan, DAY).calendar,
    );
    if (!made.ok) throw new Error(made.reason);
    const { moments, command } = made.tried;
    const held = moments.map(({ state }) =>
      dataOfPool(
        state.plan,
        state.plan.pools.find(({ id }) => id === pool.id)!,
        rulesOfBox(plan),
      ),
    );
    // What is held after each year's drive is asked for from that year on.
    const years = command.steps.flatMap(({ notBefore }, i) => (notBefore ? [i] : []));
    const ends = [...years.map((first) => held[first]!), held.at(-1)!];
    const instance = {
      ...instanceOf(plan, wishFor(layout, plan, 36), DAY),
      needs: Float64Array.from({ length: 36 }, (_, month) => ends[Math.floor(month / 12)]!),
    };
    const sold = instance.sold.filter((each) => each.bytes === bytes);
    const { way, proved } = last(bestWaySteps({ ...instance, sold }, ASKED, waySetting(plan, DAY)));
    expect(proved).toBe(true);
    const spent = way!.acts.map(({ month }) => month);
    const cents = [0, 12, 24].map((month) => sold[0]!.cents[month]!);
    expect(way!.cents).toBeLessThanOrEqual(cents.reduce((sum, each) => sum + each, 0));
    // Nothing less holds what each year's drive gave: the same drives, in the same years, holding the same to the byte.
    const growing = ends.filter((each, i) => each > (ends[i - 1] ?? held[0]!));
    expect([...new Set(spent)].length).toBe(growing.length);
    expect(way!.data.at(-1)).toBe(ends.at(-1));
  },
);
