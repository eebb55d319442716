import fc from "fast-check";
import { rulesOfBox } from "../box/rulesOfBox";
import type { LayoutId, Plan, RuleSetId } from "../document/plan";
import { boxWith, withDrive, withRules } from "../testing/boxWith";
import { meanTimeToLoss } from "../testing/meanTimeToLoss";
import { walkPlan } from "../walk/walkPlan";
import { chancesAlong, walkedOf } from "./alongPlan";
import { chancesAtRest, restingOf } from "./atRest";
import { chainOf } from "./chain";
import { ended, poolLost } from "./chance";
import type { ReadClause } from "./clauses";
import { type ChanceDrive, componentsOf } from "./component";
import { conditionsOf } from "./conditions";
import { ageOf, failureRate } from "./failureRate";
import { type Point, pointOf } from "./inputs";
import { anyCause, mostly, OF_DRIVES, worthOf } from "./otherCauses";
import { chancesOfPool, overYears } from "./poolChance";
import { chancesOfPlan, prepareChances, rangedChances } from "./planChances";
import { modelOfPool, type PoolModel } from "./poolModel";
import { rangeOf } from "./range";
import { rated } from "./rates";
import { atStart, spend } from "./solver";

/** Drives that fail and are rebuilt at given rates, as one chain without sectors. */
function chainRates(count: number, tolerance: number, fails: number, rebuilds: number) {
  const drives = Array.from({ length: count }, (_, i): ChanceDrive => {
    return { id: `d${i}`, bytes: 1, rates: [fails], rebuildHours: 1 / rebuilds, batch: null, isGone: false };
  });
  const ids = drives.map(({ id }) => id);
  const clauses: ReadClause[] = [{ drives: ids, tolerance, reads: ids.map(() => 1) }];
  // As many spares as there are drives: each that fails is rebuilt at once, and no delivery is waited for.
  const [component] = componentsOf(
    drives,
    clauses,
    ids.map(() => ids),
    [],
  );
  return rated(chainOf(component!, tolerance)!, component!, {
    fails: [fails],
    rebuilds: [rebuilds],
    arrives: 1e9,
    stress: 1,
    stressedAlways: false,
    unreadable: 0,
    latent: 0,
    scrubHours: 1,
  });
}

const mttdl = (count: number, fails: number, rebuilds: number) => meanTimeToLoss(chainRates(count, 1, fails, rebuilds));

describe("the mean time to data loss, without sectors", () => {
  test.each([
    [2, 1 / 30_000, 1],
    [3, 1e-5, 0.02],
    [14, 1 / 30_000, 1],
    [24, 3e-6, 1 / 30],
  ])("single parity of %i drives as its closed form says, to 1e-12", (n, fails, rebuilds) => {
    const closed = ((2 * n - 1) * fails + rebuilds) / (n * (n - 1) * fails * fails);
    expect(Math.abs(mttdl(n, fails, rebuilds) / closed - 1)).toBeLessThan(1e-12);
  });

  // Patterson, Gibson and Katz 1988: 100 disks of 30,000 h, repaired in 1 h, in groups with so many of them.
  test.each([
    ["mirrors", 2, 100, 4_500_450],
    ["ten and four", 14, 10, 494_951],
    ["ten and one", 11, 10, 818_755],
    ["twenty-five and one", 26, 4, 346_742],
  ])("the first paper on RAID: %s", (_, n, groups, hours) => {
    expect(Math.round(mttdl(n, 1 / 30_000, 1) / groups)).toBe(hours);
  });

  test("Elerath and Pecht's eight drives: 36,176 years", () => {
    expect(Math.round(mttdl(8, 1 / 461_386, 1 / 12) / 8760)).toBe(36_176);
  });
});

test("the transform and the counting of jumps come to the same", () => {
  const chain = chainRates(6, 2, 2e-4, 0.05);
  const whole = spend(chain, atStart(chain), 8766);
  let parts = atStart(chain);
  for (let i = 0; i < 100; i += 1) parts = spend(chain, parts, 87.66);
  expect(Math.abs(whole.ends.rebuilding / parts.ends.rebuilding - 1)).toBeLessThan(1e-10);
  whole.states.forEach((state, i) => expect(state).toBeCloseTo(parts.states[i]!, 12));
  const all = [...whole.states, ...Object.values(whole.ends)].reduce((sum, each) => sum + each, 0);
  expect(all).toBeCloseTo(1, 12);
});

const atRest = (plan: Plan, years: number, point: Point = pointOf({})) => {
  const conditions = conditionsOf(plan);
  const model = modelOfPool(plan, plan.pools[0]!, rulesOfBox(plan), null);
  return chancesOfPool(model, point, conditions, overYears(years, conditions)).at(-1)!;
};
const perThousand = (plan: Plan, years: number) => 1000 * ended(atRest(plan, years));
const classic = (layout: LayoutId, sizes: number[], chance: Plan["chance"] = {}, set: RuleSetId = "classic-raid") => ({
  ...boxWith(set, layout, sizes),
  chance,
});

const within = (value: number, target: number, share: number) =>
  expect(Math.abs(value / target - 1)).toBeLessThan(share);

describe("of 1,000 boxes, drives two years old, so many lose something in a year and in ten", () => {
  test.each([
    ["a mirror", classic("raid1", [4, 4]), 0.2774, 11.19],
    ["unnoticed for a month", classic("raid1", [4, 4], { alerts: false }), 0.6028, 32.93],
    ["never checked", classic("raid1", [4, 4], { scrubHours: 35_064 }), 4.521, 124.6],
    ["single parity", classic("raid5", [12, 12, 12, 12]), 2.947, 95.34],
    ["double parity", classic("raid6", [12, 12, 12, 12]), 0.005931, 0.8065],
    ["double parity of five", classic("raid6", [12, 12, 12, 12, 12]), 0.01471, 1.981],
    ["a hybrid", classic("hybrid-1", [4, 4, 8, 12], {}, "hybrid-box"), 1.592, 59.99],
    ["a hybrid, two safe", classic("hybrid-2", [4, 4, 8, 12], {}, "hybrid-box"), 0.002586, 0.4048],
  ])("%s", (_, plan, year, ten) => {
    within(perThousand(plan, 1), year, 0.01);
    within(perThousand(plan, 10), ten, 0.01);
  });

  test("what takes most is a sector that cannot be read", () => {
    const { sector, waiting, rebuilding } = atRest(classic("raid1", [4, 4]), 1);
    within(sector / (sector + waiting + rebuilding), 0.88, 0.01);
  });
});

/** Six drives of 4 TB, each replaced by one of 12 TB. */
function sixByOne(layout: LayoutId, how: "pulled" | "attached"): Plan {
  const box = boxWith("classic-raid", layout, [4, 4, 4, 4, 4, 4], [12, 12, 12, 12, 12, 12]);
  const steps = [1, 2, 3, 4, 5, 6].map((i) => ({
    id: `s${i}`,
    kind: "replace-drive" as const,
    drive: `d${i}`,
    by: `x${i}`,
    how,
  }));
  return withRules({ ...box, steps }, how === "attached" ? { replacing: "old-attached" } : {});
}

const toDouble: Plan = {
  ...boxWith("classic-raid", "raid5", [8, 8, 8, 8], [8]),
  steps: [{ id: "s1", kind: "change-level", group: "g1", layout: "raid6", drives: ["x1"] }],
};

const along = (plan: Plan) => chancesAlong(walkedOf(walkPlan(plan)), pointOf({}), conditionsOf(plan));

describe("of 1,000 such plans so many lose something on the way", () => {
  test.each([
    ["single parity, pulled", sixByOne("raid5", "pulled"), 107.7],
    ["single parity, the old drive attached", sixByOne("raid5", "attached"), 0.04601],
    ["double parity, pulled", sixByOne("raid6", "pulled"), 0.02099],
    ["from single to double parity", toDouble, 4.109],
  ])("%s", (_, plan, target) => within(1000 * along(plan).any, target, 0.01));

  test("of them the whole pool 1.4, pulled; and a power cut takes most where all is rewritten", () => {
    expect((1000 * along(sixByOne("raid5", "pulled")).poolLost).toFixed(1)).toBe("1.4");
    const { causes } = along(toDouble).steps[0]!;
    expect(mostly(causes, OF_DRIVES)).toBe("power-cut");
    within(causes["power-cut"] / anyCause(causes), 0.99, 0.01);
  });

  test("a battery supply leaves a tenth of the power cuts; a widening is hardly hurt by one", () => {
    const withSupply = { ...toDouble, box: { ...toDouble.box, ups: true as const } };
    within(along(withSupply).steps[0]!.causes["power-cut"], along(toDouble).steps[0]!.causes["power-cut"] / 10, 0.01);
    const wider: Plan = { ...toDouble, steps: [{ id: "s1", kind: "widen-group", group: "g1", drives: ["x1"] }] };
    expect(1000 * along(wider).steps[0]!.causes["power-cut"]).toBeLessThan(0.15);
    // Chunks are copied before their old place is given up.
    const chunks: Plan = {
      ...boxWith("chunk-copies", "copies-2", [8, 8, 8], []),
      steps: [{ id: "s1", kind: "change-level", group: "g1", layout: "copies-3", drives: [] }],
    };
    expect(walkPlan(chunks).moments[1]!.walked!.done).toBe(true);
    expect(along(chunks).steps[0]!.causes["power-cut"]).toBe(0);
  });

  test("a check just before leaves no sectors that have gone bad unseen to a drive that is pulled", () => {
    const [first] = sixByOne("raid5", "pulled").steps;
    const bare: Plan = { ...sixByOne("raid5", "pulled"), steps: [first!] };
    const checked: Plan = { ...bare, steps: [{ id: "v1", kind: "verify", pool: "p1" }, first!] };
    const latent = 5 * 8e-6 * 365;
    const [before] = along(bare).steps;
    const after = along(checked).steps.find(({ step }) => step === "s1")!;
    within(before!.causes.sector - after.causes.sector, latent, 0.05);
  });
});

describe("ranges", () => {
  const rangeOfYear = (plan: Plan) => rangedChances(prepareChances(walkPlan(plan), [0])).moments[0]!.pools[0]!.year.any;
  const rangeAlong = (plan: Plan) => rangedChances(prepareChances(walkPlan(plan), [])).along.any;

  test.each([
    ["a mirror", rangeOfYear(classic("raid1", [4, 4])), 0.1, 6.6],
    ["single parity", rangeOfYear(classic("raid5", [12, 12, 12, 12])), 0.9, 54],
    ["six drives, pulled", rangeAlong(sixByOne("raid5", "pulled")), 26, 700],
    ["from single to double parity", rangeAlong(toDouble), 1.2, 25],
  ])("%s", (_, { low, high }, least, most) => {
    within(1000 * low, least, 0.05);
    within(1000 * high, most, 0.05);
  });

  test("movements are added as squares of logarithms of hazards, up and down apart", () => {
    const { low, high } = rangeOf(0.01, [0.02, 0.04, 0.005]);
    const hazard = (chance: number) => -Math.log(1 - chance);
    const up = Math.hypot(Math.log(hazard(0.02) / hazard(0.01)), Math.log(hazard(0.04) / hazard(0.01)));
    expect(high).toBeCloseTo(1 - Math.exp(-hazard(0.01) * Math.exp(up)), 12);
    expect(low).toBeCloseTo(0.005, 12);
    expect(rangeOf(1, [1])).toEqual({ low: 1, expected: 1, high: 1 });
    expect(rangeOf(0.3, [0.999]).high).toBeLessThan(1);
  });

  test("come after the expected figures, input by input, and end with all of them", () => {
    const told = [...chancesOfPlan(prepareChances(walkPlan(toDouble), [0, 1, 7]))];
    expect([told[0]!.ranged, told[0]!.share, told[0]!.moved.length]).toEqual([null, 0, 0]);
    expect(told[0]!.expected.moments.map(({ at }) => at)).toEqual(["0", "1"]);
    const last = told.at(-1)!;
    expect(last.share).toBe(1);
    expect(JSON.stringify(last.ranged)).toBe(JSON.stringify(rangedChances(prepareChances(walkPlan(toDouble), [0, 1]))));
    const cuts = last.moved.find(({ names }) => names[0] === "powerCuts")!.chances.along.any;
    within(cuts.high / cuts.low, 12, 0.05);
  });

  test("what the owner knows takes the place of what is usual", () => {
    const known = { low: 2, expected: 2, high: 2 };
    const plan = { ...toDouble, chance: { inputs: { powerCuts: known } } };
    const { expected } = rangeAlong(plan);
    within(expected, 2 * along(toDouble).any, 0.02);
    expect(
      [...chancesOfPlan(prepareChances(walkPlan(plan), []))].at(-1)!.moved.flatMap(({ names }) => names),
    ).not.toContain("powerCuts");
  });
});

describe("other causes, and backups", () => {
  const stored: Partial<Plan> = {
    dataSets: [{ id: "s1", name: "Images", volume: "v1", bytes: 1e12, worth: "precious" }],
  };
  const volumes = [{ id: "v1", name: "V", bytes: 3e12, fileSystem: "ext4" as const }];
  const mirror: Plan = { ...boxWith("classic-raid", "raid1", [4, 4], [], { volumes }), ...stored };
  const weekly = {
    id: "b1",
    name: "Elsewhere",
    kind: "box" as const,
    place: "elsewhere" as const,
    everyDays: 7,
    keepsVersions: true,
    lastVerified: "2026-11-20",
    dataSets: ["s1"],
  };
  const DAY = "2026-11-27";
  const inAYear = (plan: Plan) => chancesAtRest(restingOf(plan, DAY), pointOf({}), conditionsOf(plan))[0]!;

  test("a mirror without a backup loses something in 98 of 1,000 by all causes, with one elsewhere in 3.1", () => {
    within(1000 * anyCause(inAYear(mirror).year.causes), 98, 0.01);
    const kept = inAYear({ ...mirror, backups: [weekly] });
    within(1000 * anyCause(kept.year.withBackups), 3.1, 0.01);
    expect(kept.dataSets).toMatchObject([
      { id: "s1", year: kept.year.withBackups, tenYears: kept.tenYears.withBackups },
    ]);
    expect(kept.dataSets[0]!.anyInYear).toBe(anyCause(kept.year.withBackups));
    // What is here stays what it is: only what is lost for good is less.
    expect(kept.year.causes).toEqual(inAYear(mirror).year.causes);
  });

  test("a backup in the house saves little from a fire, one without versions little from a deletion", () => {
    const at = pointOf({});
    const of = (changes: object) =>
      worthOf({ ...mirror, backups: [{ ...weekly, ...changes }] }, { id: "s1" }, DAY, at)[0]!;
    expect(of({})).toEqual({ backup: "b1", days: 7, drives: 0.97, theft: 0.97, deletion: 0.97 });
    expect(of({ place: "here" }).theft).toBeCloseTo(0.097, 12);
    expect(of({ lastVerified: "2026-01-01" }).drives).toBe(0.75);
    // Noticed after 14 days in the mean, and overwritten within 7: drawn day by day it is the same.
    const steps = 200_000;
    let found = 0;
    for (let i = 0; i < steps; i += 1) found += 1 - Math.exp(-(7 * (i + 0.5)) / steps / 14);
    expect(of({ keepsVersions: false }).deletion).toBeCloseTo((0.97 * found) / steps, 8);
    expect(of({ keepsVersions: false, everyDays: 1 }).deletion).toBeLessThan(0.04);
    expect(worthOf({ ...mirror, backups: [{ ...weekly, bytes: 1e11 }] }, { id: "s1" }, DAY, at)).toEqual([]);
  });

  test("of several data sets the one that fares worst counts", () => {
    const two = {
      ...mirror,
      dataSets: [...mirror.dataSets!, { ...mirror.dataSets![0]!, id: "s2" }],
      backups: [weekly],
    };
    const { year } = inAYear(two);
    expect(year.withBackups).toEqual(year.causes);
    // What can be had again is not missed.
    const other = { ...two.dataSets[1]!, worth: "replaceable" as const };
    expect(inAYear({ ...two, dataSets: [two.dataSets[0]!, other] }).year.withBackups.deletion).toBeLessThan(0.01);
  });
});

describe("drives", () => {
  test("rates go straight between the entries of years, and the last one stays", () => {
    const disk = { medium: "hdd", health: { state: "good" } } as const;
    const yearly = (age: number) => 1 - Math.exp(-8766 * failureRate(disk, age, pointOf({})));
    expect([0, 2, 2.5, 7, 20].map((age) => yearly(age).toFixed(6))).toEqual(
      [0.015, 0.017, 0.0195, 0.07, 0.07].map((rate) => rate.toFixed(6)),
    );
    const worn = { medium: "hdd", health: { state: "watch" } } as const;
    expect(failureRate(worn, 2, pointOf({})) / failureRate(disk, 2, pointOf({}))).toBeCloseTo(8, 12);
    const flash = { medium: "ssd", health: { state: "failing" } } as const;
    expect(8766 * failureRate(flash, 2, pointOf({}))).toBeCloseTo(-40 * Math.log(0.99), 12);
  });

  test("are two years old where nobody says when they were bought", () => {
    expect(ageOf({}, "2026-11-27")).toBe(2);
    expect(ageOf({ purchased: "2020" }, null)).toBe(2);
    expect(ageOf({ purchased: "2024-11-27" }, "2026-11-27")).toBeCloseTo(2, 2);
    expect(ageOf({ purchased: "2030" }, "2026-11-27")).toBe(0);
  });

  test("a drive that is gone already counts from the beginning, and one too many has cost all", () => {
    const plan = withDrive(classic("raid5", [4, 4, 4]), "d1", { state: "failed" });
    expect(ended(atRest(plan, 1))).toBeGreaterThan(4 * ended(atRest(classic("raid5", [4, 4, 4]), 1)));
    expect(poolLost(atRest(withDrive(plan, "d2", { state: "missing" }), 1))).toBe(1);
  });

  test("chunks lie on all sets of drives: no two of eight can be lost", () => {
    const model = modelOfPool(
      classic("copies-2", [4, 4, 4, 4, 4, 4, 4, 4], {}, "chunk-copies"),
      classic("copies-2", [4, 4, 4, 4, 4, 4, 4, 4]).pools[0]!,
      rulesOfBox(classic("copies-2", [4], {}, "chunk-copies")),
      null,
    );
    expect(model.clauses).toHaveLength(1);
    expect(model.clauses[0]).toMatchObject({ tolerance: 1, drives: { length: 8 } });
  });

  test("a mirror of many is told as a bound, and not looked at to the end", () => {
    const chance = atRest(classic("raid1", Array<number>(12).fill(4)), 1);
    expect(ended(chance) + chance.cutOff).toBeLessThan(1e-6);
  });
});

describe("never raises the chance", () => {
  const sizes = fc.array(fc.constantFrom(2, 4, 8, 12), { minLength: 4, maxLength: 8 });
  const less = (better: Plan, worse: Plan) => {
    const [a, b] = [atRest(better, 3), atRest(worse, 3)];
    expect(ended(a) + a.cutOff).toBeLessThanOrEqual(ended(b) * (1 + 1e-9) + 1e-6);
    if (b.cutOff === 0) expect(ended(a)).toBeLessThanOrEqual(ended(b) * (1 + 1e-9));
  };
  const runs = { numRuns: 15 };

  test("one more parity", () => {
    fc.assert(
      fc.property(
        sizes,
        fc.constantFrom<[LayoutId, LayoutId, RuleSetId]>(
          ["raid5", "raid6", "classic-raid"],
          ["hybrid-1", "hybrid-2", "hybrid-box"],
          ["parity-drive-1", "parity-drive-2", "parity-drive"],
        ),
        (tb, [one, two, set]) => less(classic(two, tb, {}, set), classic(one, tb, {}, set)),
      ),
      runs,
    );
  });

  test("a hot spare, a check more often, a drive on the shelf, alerts", () => {
    fc.assert(
      fc.property(sizes, fc.constantFrom<LayoutId>("raid5", "raid6", "raid10"), (odd, layout) => {
        const tb = odd.slice(0, odd.length - (odd.length % 2));
        const box = boxWith("classic-raid", layout, tb, [12]);
        const worse = { ...box, chance: { alerts: false, scrubHours: 2000 } };
        less({ ...worse, pools: [{ ...box.pools[0]!, spares: ["x1"] }] }, worse);
        for (const chance of [{ alerts: true }, { scrubHours: 200 }, { spareOnShelf: true }])
          less({ ...worse, chance: { ...worse.chance, ...chance } }, worse);
      }),
      runs,
    );
  });

  test("a shorter rebuild", () => {
    fc.assert(
      fc.property(sizes, fc.double({ min: 0.1, max: 1, noNaN: true }), (tb, share) => {
        const plan = classic("raid6", tb);
        const conditions = conditionsOf(plan);
        const slow = modelOfPool(plan, plan.pools[0]!, rulesOfBox(plan), null);
        const quick: PoolModel = {
          ...slow,
          drives: slow.drives.map((drive) => ({ ...drive, rebuildHours: drive.rebuildHours * share })),
        };
        const lostOf = (model: PoolModel) =>
          poolLost(chancesOfPool(model, pointOf({}), conditions, overYears(1, conditions))[0]!);
        expect(lostOf(quick)).toBeLessThanOrEqual(lostOf(slow) * (1 + 1e-9));
      }),
      runs,
    );
  });
});
