import fc from "fast-check";
import { nominalBytes } from "../bytes/nominalBytes";
import { emptyPlan } from "../document/emptyPlan";
import type { LayoutId, Plan, PricedDrive, RuleSetId } from "../document/plan";
import { clinic } from "../document/samples/clinic";
import { EXAMPLE_PRICES } from "../drives/priceList";
import { predict } from "../prediction/predict";
import { ruleSets } from "../rules/ruleSets";
import { drivesOfTB } from "../testing/arbitraries";
import { bestBuys } from "./bestBuys";
import { placementsIn, usableWith, type Placed } from "./placements";
import { flatStretches } from "./flatStretches";
import { sizeCurve } from "./sizeCurve";
const boxOf = (set: RuleSetId, layout: LayoutId, bays: number, ...tb: number[]): Plan => ({
  ...emptyPlan("x"),
  box: { name: "x", bays, rules: { set } },
  drives: drivesOfTB(...tb),
  pools: [
    {
      id: "p1",
      name: "P",
      groups: [{ id: "g1", layout, drives: tb.map((_, i) => `d${i + 1}`) }],
      spares: [],
      volumes: [],
    },
  ],
});
const TB = (bytes: number) => Math.round(bytes / 1e11) / 10;
const placed = (tb: number, at: Placed["at"]): Placed => ({
  bytes: nominalBytes(tb * 1000),
  medium: "hdd",
  bus: "sata",
  at,
});

test("a large drive bought for RAID 5 of 3 × 4 TB: 4 TB as one more whatever its size, nothing as a replacement", () => {
  const plan = boxOf("classic-raid", "raid5", 4, 4, 4, 4);
  const more = sizeCurve(plan, plan.pools[0]!, { kind: "add", group: "g1" });
  expect(more.filter((point) => point.outcome.ok).map((point) => TB(point.gainBytes))).toEqual(
    more.filter((point) => point.outcome.ok).map(() => 4),
  );
  expect(flatStretches(more)).toEqual([{ from: nominalBytes(4000), to: null, gainBytes: more.at(-1)!.gainBytes }]);
  expect(more[0]).toMatchObject({ outcome: { ok: false }, gainBytes: 0 });
  const other = sizeCurve(plan, plan.pools[0]!, { kind: "replace", drive: "d1" });
  expect(other.every((point) => point.gainBytes === 0)).toBe(true);
});

test("a hybrid of 4, 4, 8: nothing more above the largest until a second one comes", () => {
  const plan = boxOf("hybrid-box", "hybrid-1", 4, 4, 4, 8);
  const curve = sizeCurve(plan, plan.pools[0]!, { kind: "replace", drive: "d1" });
  const at = (tb: number) => curve.find((point) => point.bytes === nominalBytes(tb * 1000))!;
  expect([4, 6, 8, 12].map((tb) => TB(at(tb).gainBytes))).toEqual([0, 2, 4, 4]);
  // A second 12 TB drive: 12 + 12 + 4 in the place of the other 4, or 4 + 12 + 12 with one in the free bay.
  expect(TB(at(12).thenBytes)).toBeGreaterThan(TB(at(12).gainBytes));
  expect(flatStretches(curve).at(-1)).toMatchObject({ from: nominalBytes(8000), to: null });
});

test("a fixed-group box is not widened; a box without a free bay takes replacements only", () => {
  const fixed = boxOf("fixed-group", "raid5", 8, 4, 4, 4);
  expect(usableWith(fixed, fixed.pools[0]!, [placed(4, { kind: "add", group: "g1" })])).toMatchObject({
    ok: false,
    reason: expect.stringMatching(/does not widen/),
  });
  const full = boxOf("classic-raid", "raid5", 3, 4, 4, 4);
  expect(usableWith(full, full.pools[0]!, [placed(4, { kind: "add", group: "g1" })])).toMatchObject({
    ok: false,
    reason: "No bay is free for it.",
  });
  expect(usableWith(full, full.pools[0]!, [placed(3, { kind: "replace", drive: "d1" })])).toMatchObject({ ok: false });
});

test("without anything placed it is what the prediction says", () => {
  expect(usableWith(clinic, clinic.pools[0]!, [])).toEqual({
    ok: true,
    usableBytes: predict(clinic).pools[0]!.usableBytes,
  });
});

const cases = fc.record({
  set: fc.constantFrom(...ruleSets.map((set) => set.id)),
  layout: fc.constantFrom<LayoutId>("raid1", "raid5", "hybrid-1", "hybrid-2", "copies-2", "parity-drive-1"),
  tb: fc.array(fc.constantFrom(2, 4, 8, 12), { minLength: 2, maxLength: 5 }),
  free: fc.integer({ min: 0, max: 2 }),
  prices: fc.array(fc.record({ tb: fc.constantFrom(2, 4, 8, 12, 16), price: fc.integer({ min: 10, max: 400 }) }), {
    minLength: 1,
    maxLength: 3,
  }),
});

test("the best buys are those that trying every drive, every pair, every place and both orders finds", () => {
  fc.assert(
    fc.property(cases, ({ set, layout, tb, free, prices }) => {
      const plan = boxOf(set, layout, tb.length + free, ...tb);
      const pool = plan.pools[0]!;
      const items = prices.map((each): PricedDrive => ({
        bytes: nominalBytes(each.tb * 1000),
        price: each.price,
        medium: "hdd",
        bus: "sata",
        label: "",
      }));
      const now = usableWith(plan, pool, []);
      const base = now.ok ? now.usableBytes : 0;
      const gain = (list: Placed[]) => {
        const outcome = usableWith(plan, pool, list);
        return outcome.ok ? outcome.usableBytes - base : 0;
      };
      const all = items.flatMap((item) => placementsIn(pool).map((at) => ({ item, at })));
      const asPlaced = ({ item, at }: (typeof all)[number]): Placed => ({ ...item, at });
      const ones = all
        .filter(({ at }) => at.kind !== "further-group")
        .map((each) => gain([asPlaced(each)]) / each.item.price);
      const twos = all.flatMap((a) =>
        all.flatMap((b) => {
          const sameBay = a.at.kind === "replace" && b.at.kind === "replace" && a.at.drive === b.at.drive;
          if (sameBay || (a.at.kind === "further-group") !== (b.at.kind === "further-group")) return [];
          return [gain([asPlaced(a), asPlaced(b)]) / (a.item.price + b.item.price)];
        }),
      );
      const found = bestBuys(plan, pool, items);
      expect(found.one[0]?.bytesPerMoney ?? 0).toBeCloseTo(Math.max(0, ...ones), 3);
      expect(found.two[0]?.bytesPerMoney ?? 0).toBeCloseTo(Math.max(0, ...twos), 3);
    }),
    { numRuns: 150 },
  );
});

test("a drive of the clinic in poor health goes first, among equals", () => {
  const plan = {
    ...clinic,
    drives: clinic.drives.map((drive) =>
      drive.id === "d2" ? { ...drive, health: { state: "watch" as const } } : drive,
    ),
  };
  const [best] = bestBuys(plan, plan.pools[0]!, EXAMPLE_PRICES).one.filter(
    (buy) => buy.drives[0]!.at.kind === "replace",
  );
  expect(best!.drives[0]!.at).toEqual({ kind: "replace", drive: "d2" });
});
