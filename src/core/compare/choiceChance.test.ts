import { conditionsOf } from "../chance/conditions";
import { pointOf } from "../chance/inputs";
import { ended } from "../chance/chance";
import { chancesOfPool, overYears } from "../chance/poolChance";
import { modelOfPool } from "../chance/poolModel";
import { emptyPlan } from "../document/emptyPlan";
import { rulesOf } from "../rules/ruleSets";
import { drivesOfTB } from "../testing/arbitraries";
import { type Choice, compareDrives, poolOf } from "./compare";
import { rangeOfChoice } from "./choiceChance";
import { beatenBy } from "./domination";
import { measureOf } from "./measures";
import { nearestChange } from "./nearestChange";
import { misfits } from "./needs";

const rules = rulesOf({ set: "classic-raid" });
const conditions = conditionsOf({ ...emptyPlan("x"), chance: {} });
const chances = { day: null, own: {}, conditions };
const drives = drivesOfTB(12, 12, 12, 12);
const driveOf = new Map(drives.map((drive) => [drive.id, drive]));
const request = { drives, rules, network: 117e6, splits: true, chances };
const { choices } = compareDrives(request);
const named = (name: string): Choice => choices.find((choice) => choice.name === name)!;

test("a choice has the chance that its pool would have", () => {
  expect(1000 * named("RAID 5").figures.chance!.tenYears).toBeCloseTo(95.34, 1);
  for (const { groups, figures } of choices) {
    const plan = { ...emptyPlan("x"), drives, pools: [poolOf(groups)] };
    const years = chancesOfPool(
      modelOfPool(plan, plan.pools[0]!, rules, null),
      pointOf({}),
      conditions,
      overYears(10, conditions),
    );
    const last = years.at(-1)!;
    expect(figures.chance!.tenYears).toBeCloseTo(ended(last) + last.cutOff, 12);
    expect(measureOf("chance").of(figures)).toBe(figures.chance!.tenYears);
  }
  expect(compareDrives({ ...request, chances: undefined }).choices[0]!.figures.chance).toBeNull();
});

test("its range holds what it is with each input at each end", () => {
  const { tenYears, ends } = rangeOfChoice(named("RAID 5").pool, driveOf, chances);
  expect(Object.keys(ends)).toEqual(
    expect.arrayContaining(["diskYear1", "unreadable", "latent", "stress", "noticeWithAlerts", "badBatch"]),
  );
  expect(Object.keys(ends)).not.toEqual(expect.arrayContaining(["flash", "theftOrFire", "powerCuts"]));
  for (const [low, high] of Object.values(ends)) {
    expect(low).toBeGreaterThanOrEqual(tenYears.low * (1 - 1e-9));
    expect(high).toBeLessThanOrEqual(tenYears.high * (1 + 1e-9));
  }
});

test("what is needed can be so few of like boxes, and what would make a choice fit is found", () => {
  const raid5 = named("RAID 5");
  const needs = { lossAYear: 0.001 };
  expect(misfits(raid5, needs)).toEqual([{ need: "lossAYear", reason: "3 of 1,000 lose something in a year" }]);
  expect(misfits(named("RAID 6"), needs)).toEqual([]);
  expect(misfits(raid5, { lossAYear: 0.01 })).toEqual([]);
  // A further drive never makes single parity safer; smaller ones in the place of large ones are not tried.
  const asked = [needs, drives.map(({ bytes }) => bytes), 2, drives, rules, 117e6, undefined, chances] as const;
  expect(nearestChange({ groups: raid5.groups }, ...asked)).toBeNull();
});

test("one beats another only where it is as safe at each end of each input", () => {
  const [base] = choices;
  const with_ = (id: string, usableBytes: number, tenYears: number, latent: readonly [number, number]) => ({
    id,
    figures: {
      ...base!.figures,
      usableBytes,
      chance: { year: 0, tenYears, isBound: false },
      chanceRange: { tenYears: { low: 0, expected: tenYears, high: 1 }, ends: { latent } },
    },
  });
  const one = with_("one", 2e12, 0.01, [0.005, 0.02]);
  expect(beatenBy([one, with_("two", 1e12, 0.02, [0.006, 0.03])]).get("two")).toBe("one");
  // Better as expected, and worse where sectors go bad often.
  expect(beatenBy([one, with_("two", 1e12, 0.02, [0.006, 0.019])]).get("two")).toBeUndefined();
});
