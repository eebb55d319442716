import "../commands/dataCommands";
import fc from "fast-check";
import { bandsOfPool } from "../box/figures";
import { nominalBytes } from "../bytes/nominalBytes";
import { applyCommand } from "../commands/applyCommand";
import { emptyPlan } from "../document/emptyPlan";
import type { Backup, Plan } from "../document/plan";
import { checkPlan } from "../document/readPlan";
import { fateOf } from "../failures/fate";
import { ruleSets, rulesOf } from "../rules/ruleSets";
import { demand, lateFindings } from "../schedule/demand";
import { timesByHours } from "../schedule/stepTimes";
import { numbered } from "../testing/anySteps";
import { drivesOfTB, testDrive } from "../testing/arbitraries";
import { away, clinicPlan, DAY, images, office, TB, usb } from "../testing/dataPlan";
import { attach, pull } from "../testing/stepsInShort";
import { plainDayWords } from "../time/dateWords";
import { dayAfter, daysBetween, isDay } from "../time/days";
import { walkPlan } from "../walk/walkPlan";
import { coverage, type Outcome } from "./coverage";
import { sizeAfter } from "./dataSet";
import { fullAfter } from "./fullAfter";
import { storedAfter } from "./stored";

describe("days", () => {
  test("counted over a leap day and the end of a year", () => {
    expect(daysBetween("2028-02-28", "2028-03-01")).toBe(2);
    expect(dayAfter("2026-12-30", 3)).toBe("2027-01-02");
    expect([isDay("2028-02-29"), isDay("2027-02-29"), isDay("2027-2-1")]).toEqual([true, false, false]);
  });
  test("so many days after is so many days between, for any days", () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 60_000 }), fc.integer({ min: 0, max: 60_000 }), (from, days) => {
        const day = dayAfter("1980-01-01", from);
        expect(daysBetween(day, dayAfter(day, days))).toBe(days);
        expect(isDay(day)).toBe(true);
      }),
    );
  });
});

describe("growth", () => {
  test("220 GB a month are 2.64 TB in a mean year, and a tenth a year is a tenth", () => {
    expect(sizeAfter(images, 365.2425)).toBeCloseTo(9 * TB + 12 * 220e9, -6);
    expect(sizeAfter(office, 2 * 365.2425)).toBeCloseTo(0.4 * TB * 1.21, -6);
  });
  test("what else is on the volume stays", () =>
    expect(storedAfter(clinicPlan(), clinicPlan().pools[0]!.volumes[0]!, 0)).toBe(9.6 * TB));
  test("by hand: 9.6 TB, 0.22 a month and 0.04 a year, to 80 % of 12.5 TB in about 54 days", () => {
    const volume = clinicPlan().pools[0]!.volumes[0]!;
    expect(fullAfter(clinicPlan(), volume, 12.5 * TB)).toBe(Math.floor((0.4 / (0.22 * 12 + 0.0381)) * 365.2425) + 1);
    expect(fullAfter(clinicPlan(), volume, 11 * TB)).toBe(0);
    expect(fullAfter({ dataSets: [] }, volume, 13 * TB)).toBeNull();
  });
  test("the day found is the first one that is full, for any data", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 4e12 }),
        fc.integer({ min: 0, max: 3e11 }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.integer({ min: 1e11, max: 3e13 }),
        fc.double({ min: 0, max: 0.9, noNaN: true }),
        fc.integer({ min: 0, max: 2000 }),
        (bytes, perMonth, share, capacity, headroomShare, since) => {
          const plan = {
            dataSets: [
              { ...images, bytes, growth: { bytesPerMonth: perMonth } },
              { ...office, bytes, growth: { sharePerYear: share } },
            ],
          };
          const volume = { id: "v1", name: "", bytes: capacity, fileSystem: "none" as const, headroomShare };
          const day = fullAfter(plan, volume, capacity, since);
          const isFull = (days: number) => storedAfter(plan, volume, days) > capacity * (1 - headroomShare);
          if (day === null) expect(isFull(18_000)).toBe(false);
          else {
            expect(isFull(day)).toBe(true);
            if (day > since) expect(isFull(day - 1)).toBe(false);
          }
        },
      ),
      { numRuns: 300 },
    );
  });
});

describe("coverage", () => {
  const outcomes = (plan: Plan, set: string) => coverage(plan, DAY).find((each) => each.dataSet === set)!.outcomes;
  test("single parity with a copy elsewhere that keeps versions", () => {
    expect(outcomes(clinicPlan({ backups: [away] }), "s1")).toEqual({
      "one-failure": { kind: "kept" },
      "two-failures": { kind: "from-backup", backup: "b1", days: 7, share: 1 },
      "theft-or-fire": { kind: "from-backup", backup: "b1", days: 7, share: 1 },
      deletion: { kind: "from-backup", backup: "b1", days: 7, share: 1 },
    });
  });
  test("data that is nowhere else goes with the second drive, the house, or a slip of the hand", () => {
    expect(outcomes(clinicPlan({ backups: [away] }), "s2")).toEqual({
      "one-failure": { kind: "kept" },
      "two-failures": { kind: "lost" },
      "theft-or-fire": { kind: "lost" },
      deletion: { kind: "lost" },
    });
  });
  test("a copy in the same house that keeps no versions helps against drives, not against fire", () => {
    expect(outcomes(clinicPlan({ backups: [usb] }), "s2")).toMatchObject({
      "two-failures": { kind: "from-backup", backup: "b2" },
      "theft-or-fire": { kind: "lost" },
      deletion: { kind: "until-next-copy", days: 30 },
    });
  });
  test.each([
    ["was never tested", { ...away, lastVerified: undefined }],
    ["was verified long ago", { ...away, lastVerified: "2026-09-30" }],
    ["was verified in the future", { ...away, lastVerified: "2027-09-30" }],
    ["does not hold all of it", { ...away, bytes: 8 * TB }],
  ])("a backup that %s is not counted on", (_why, backup) => {
    expect(outcomes(clinicPlan({ backups: [backup as Backup] }), "s1")["theft-or-fire"]).toEqual({ kind: "lost" });
  });
  test("what so many failures cost is what the bands bear, by trying every set, for every box and layout", () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...ruleSets),
        fc.array(fc.constantFrom(1, 2, 4, 8), { minLength: 1, maxLength: 6 }),
        fc.nat(),
        (set, tb, pick) => {
          const rules = rulesOf({ set: set.id });
          const layout = rules.layouts[pick % rules.layouts.length]!;
          const drives = drivesOfTB(...tb);
          const plan: Plan = {
            ...clinicPlan(),
            box: { name: "x", bays: 8, rules: { set: set.id } },
            drives,
            pools: [
              {
                ...clinicPlan().pools[0]!,
                groups: [{ id: "g1", layout, drives: drives.map((drive) => drive.id), options: {} }],
              },
            ],
          };
          const bands = bandsOfPool(plan, plan.pools[0]!, rules);
          const costs = (ids: string[]) => ["lost", "partly-lost"].includes(fateOf(bands, new Set(ids)).kind);
          const ids = drives.map((drive) => drive.id);
          const pairs = ids.flatMap((a) => ids.filter((b) => b !== a).map((b) => [a, b]));
          const { "one-failure": one, "two-failures": two } = outcomes(plan, "s1");
          // Scheduled parity gives back what was there at its last update.
          const isKept = ({ kind }: Outcome) => kind === "kept" || kind === "since-update";
          expect(isKept(one)).toBe(!ids.some((id) => costs([id])));
          if (pairs.length > 0) {
            expect(isKept(two)).toBe(!pairs.some(costs));
            if (two.kind === "partly" || two.kind === "failed-drives")
              expect(two.share).toBeCloseTo(pairs.filter(costs).length / pairs.length, 9);
          }
        },
      ),
    );
  });
});

describe("precious data before a risky step", () => {
  const widen = { kind: "widen-group" as const, group: "g1", drives: ["x2"] };
  const codes = (plan: Plan, today = DAY) =>
    walkPlan(plan, "TB", undefined, today).moments.map(
      (moment) =>
        moment.walked?.findings.filter((finding) => finding.severity === "block").map((finding) => finding.code) ?? [],
    );
  test("without a current backup it is blocked, and nothing changes", () => {
    const made = walkPlan(numbered(clinicPlan(), [widen]), "TB", undefined, DAY);
    expect(made.moments[1]!.walked!.done).toBe(false);
    expect(made.moments[1]!.state.plan.pools).toBe(made.moments[0]!.state.plan.pools);
    expect(made.moments[1]!.walked!.findings[0]!.message).toContain("X-rays");
  });
  test("a current backup, a backup step before it, or the owner's word lets it through", () => {
    expect(codes(numbered(clinicPlan({ backups: [away] }), [widen]))).toEqual([[], []]);
    expect(codes(numbered(clinicPlan(), [{ kind: "back-up", pool: "p1", to: "b1" }, widen]))).toEqual([[], [], []]);
    const lifted = walkPlan(
      numbered(clinicPlan(), [
        { ...widen, lifted: { on: "2026-11-23", words: "The paper originals are in the cellar." } },
      ]),
      "TB",
      undefined,
      DAY,
    ).moments[1]!.walked!;
    expect(lifted.done).toBe(true);
    expect(lifted.findings.find((finding) => finding.code === "lifted-in-writing")!.message).toContain(
      "paper originals",
    );
  });
  test("a backup that is current on the first day of the plan counts, whatever day it is", () => {
    const calendar = {
      id: "c",
      start: "2026-11-20",
      timeZone: "Europe/Lisbon",
      deliveryDays: 0,
      hands: [{ days: [1], from: "08:00", to: "09:00" }],
      excluded: [],
    };
    expect(codes(numbered(clinicPlan({ backups: [away], calendar }), [widen]), "2029-01-01")).toEqual([[], []]);
    expect(codes(numbered(clinicPlan({ backups: [away] }), [widen]), "2029-01-01")).toEqual([
      [],
      ["precious-without-backup"],
    ]);
  });
  test("a backup step before a long wait is not current after it", () => {
    expect(
      codes(
        numbered(clinicPlan(), [
          { kind: "back-up", pool: "p1", to: "away" },
          { ...widen, notBefore: "2027-11-23" },
        ]),
      ),
    ).toEqual([[], [], ["precious-without-backup"]]);
  });
  test("a rebuild without redundancy is risky, one with the old drive attached is not", () => {
    const linux = { ...clinicPlan(), box: { name: "x", bays: 6, rules: { set: "linux-host" as const } } };
    expect(codes(numbered(linux, [pull("d1", "x1")]))).toEqual([[], ["precious-without-backup"]]);
    expect(codes(numbered(linux, [attach("d1", "x1")]))).toEqual([[], []]);
  });
  test("a change of the step takes back what was said of it", () => {
    const plan = numbered(clinicPlan(), [{ ...widen, lifted: { on: "2026-11-23", words: "Go." } }]);
    const after = (changes: object) => {
      const result = applyCommand(plan, { kind: "edit-step", step: "s1", changes });
      return result.ok ? result.plan.steps[0]!.lifted : "refused";
    };
    expect(after({ drives: ["x1"] })).toBeUndefined();
    expect(after({ together: true })).toEqual({ on: "2026-11-23", words: "Go." });
  });
});

describe("where redundancy takes over from a backup drive", () => {
  const two = drivesOfTB(1, 1);
  const before: Plan = {
    ...emptyPlan("x"),
    box: { name: "x", bays: 4, rules: { set: "linux-host" } },
    drives: [...two, testDrive("x1", nominalBytes(2000) + 2 ** 30, { serial: "OLD-1" })],
    pools: [
      {
        id: "p1",
        name: "P",
        groups: [{ id: "g1", layout: "single", drives: ["d1", "d2"], options: {} }],
        spares: [],
        volumes: [
          { id: "v1", name: "A", bytes: 0.9 * TB, fileSystem: "ext4" },
          { id: "v2", name: "B", bytes: 0.9 * TB, fileSystem: "ext4" },
        ],
      },
    ],
    dataSets: [
      { ...images, bytes: 0.5 * TB },
      { ...office, volume: "v2" },
    ],
    backups: [{ ...usb, drive: "x1" }],
  };
  const made = walkPlan(
    numbered(before, [
      { kind: "mirror-drive", pool: "p1", group: "g1", name: "P", drive: "d1", also: ["d2"], by: "x1" },
    ]),
    "TB",
    undefined,
    DAY,
  );
  const step = made.moments[1]!.walked!;
  test("it is said what is now covered by what, and what has no second place", () => {
    expect(step.done).toBe(true);
    const finding = step.findings.find((each) => each.code === "backup-becomes-redundancy")!;
    expect(finding.message).toMatch(
      /serial OLD-1\) was the backup “USB drive” of X-rays and Office; that copy is erased\. From then on one failed drive no longer costs X-rays and Office\. X-rays and Office have no second place any more/,
    );
  });
  test("the pool is a mirror of both, the volumes stay, and the backup is gone", () => {
    const { plan } = made.moments[1]!.state;
    expect(plan.pools[0]!.groups[0]).toMatchObject({ layout: "mirror-onto-one", drives: ["d1", "d2", "x1"] });
    expect(plan.pools[0]!.volumes).toHaveLength(2);
    expect(plan.backups).toBeUndefined();
    expect(made.moments[1]!.tolerance).toEqual([1]);
    expect(coverage(before, DAY).map((each) => each.outcomes["one-failure"].kind)).toEqual([
      "from-backup",
      "from-backup",
    ]);
    expect(coverage(plan, DAY).map((each) => each.outcomes["one-failure"].kind)).toEqual(["kept", "kept"]);
  });
});

describe("demand", () => {
  const grown = numbered(clinicPlan(), [
    { kind: "back-up", pool: "p1", to: "away" },
    { kind: "widen-group", group: "g1", drives: ["x2"] },
    { kind: "grow-volume", pool: "p1", volume: "v1" },
    { kind: "grow-file-system", pool: "p1", volume: "v1" },
  ]);
  const made = walkPlan(grown);
  test("with the plan it is full later than without, and the rise is at the file system's step", () => {
    const [one] = demand(made, timesByHours(made));
    // 9.6 TB are more than 80 % of 11.9 TB already.
    expect(one!.fullWithoutPlan).toBe(0);
    expect(one!.rises).toHaveLength(1);
    expect(one!.rises[0]).toMatchObject({ step: "s4", first: "s1" });
  });
  test("a step that comes too late says so and by how much", () => {
    const plan = {
      ...made.plan,
      dataSets: [{ ...images, bytes: 8.4 * TB }, office],
      pools: made.plan.pools.map((pool) => ({
        ...pool,
        volumes: pool.volumes.map((volume) => ({ ...volume, usedBytes: 8.8 * TB })),
      })),
    };
    const late = walkPlan(plan);
    const inTime = demand(late, timesByHours(late));
    expect(lateFindings(inTime, DAY, 3).size).toBe(0);
    const times = timesByHours(late).map(({ start, end }) => ({ start: start + 200, end: end + 200 }));
    const full = inTime[0]!.fullWithoutPlan!;
    const findings = lateFindings(demand(late, times), DAY, 3).get("s4")!;
    expect(full).toBeGreaterThan(60);
    expect(findings[0]!.message).toContain(plainDayWords(dayAfter(DAY, full)));
    expect(findings[0]!.message).toMatch(/(months|days) after Files reaches its reserve/);
    expect(findings[0]!.message).toContain(
      `must begin by ${plainDayWords(dayAfter(DAY, full - (times[3]!.end - times[0]!.start)))}`,
    );
  });
});

describe("commands and files", () => {
  test("a data set's size changes what its volume holds, and what else is there stays", () => {
    const bigger = applyCommand(clinicPlan(), { kind: "put-data-set", dataSet: { ...images, bytes: 10 * TB } });
    expect(bigger.ok && bigger.plan.pools[0]!.volumes[0]!.usedBytes).toBe(10.6 * TB);
    const gone = applyCommand(clinicPlan(), { kind: "remove-data-set", dataSet: "s1" });
    expect(gone.ok && gone.plan.pools[0]!.volumes[0]!.usedBytes).toBeCloseTo(0.6 * TB, 0);
  });
  test("a volume takes its data sets with it, and backups forget them", () => {
    const result = applyCommand(clinicPlan({ backups: [usb] }), { kind: "remove-volume", pool: "p1", volume: "v1" });
    expect(result.ok && [result.plan.dataSets, result.plan.backups![0]!.dataSets]).toEqual([undefined, []]);
  });
  test("a data set that grows in two ways is refused, and it is said where", () => {
    const growth = { bytesPerMonth: 1, sharePerYear: 1 };
    const result = checkPlan(JSON.parse(JSON.stringify(clinicPlan({ dataSets: [{ ...images, growth } as never] }))));
    expect(result.ok ? [] : result.problems.map(({ pointer }) => pointer)).toContain("/dataSets/0/growth");
  });
});
