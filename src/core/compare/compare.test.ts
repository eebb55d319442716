import fc from "fast-check";
import { nominalBytes } from "../bytes/nominalBytes";
import { applyCommand } from "../commands/applyCommand";
import { emptyPlan } from "../document/emptyPlan";
import { layoutOf } from "../layouts/registry";
import { predict } from "../prediction/predict";
import { rulesOf } from "../rules/ruleSets";
import { drivesOfTB } from "../testing/arbitraries";
import { compareDrives } from "./compare";
import { differences } from "./differences";
import { beatenBy, frontier } from "./domination";
import { lossShare, measureOf, MEASURES, merit } from "./measures";
import { nearestChange } from "./nearestChange";
import { misfits } from "./needs";

const rules = rulesOf({ set: "classic-raid" });
const compare = (...tb: number[]) => compareDrives({ drives: drivesOfTB(...tb), rules, network: 117e6, splits: true });
const named = (comparison: ReturnType<typeof compare>, name: string) =>
  comparison.choices.find((choice) => choice.name === name)!;

test("every layout that the box offers is there, possible or with what it lacks", () => {
  const three = compare(4, 4, 4);
  expect(three.choices.map((choice) => choice.name)).toEqual(
    expect.arrayContaining(["RAID 1", "RAID 5", "Separate", "Span", "RAID 0"]),
  );
  expect(three.impossible).toEqual([
    { layout: "raid10", reason: "Needs 4 drives: 1 more." },
    { layout: "raid6", reason: "Needs 4 drives: 1 more." },
  ]);
  fc.assert(
    fc.property(fc.array(fc.constantFrom(1, 2, 4, 8), { minLength: 1, maxLength: 7 }), (tb) => {
      const { choices, impossible } = compare(...tb);
      const there = [
        ...choices
          .filter((choice) => choice.groups.length === 1 && choice.leftOut.length === 0)
          .map((choice) => choice.groups[0]!.layout),
        ...impossible.map((each) => each.layout),
      ];
      expect(there.sort()).toEqual([...rules.layouts].sort());
      expect(new Set(choices.map((choice) => choice.id)).size).toBe(choices.length);
    }),
  );
});

test("what is compared is what the workbench then predicts", () => {
  fc.assert(
    fc.property(fc.array(fc.constantFrom(1, 2, 4, 8), { minLength: 2, maxLength: 7 }), fc.nat(), (tb, n) => {
      const { choices } = compare(...tb);
      const choice = choices[n % choices.length]!;
      const plan = {
        ...emptyPlan("x"),
        box: { name: "x", bays: 8, rules: { set: "classic-raid" as const } },
        drives: drivesOfTB(...tb),
      };
      const made = applyCommand(plan, { kind: "lay-out-pool", pool: null, groups: choice.groups });
      if (!made.ok) throw new Error(made.reason);
      const [pool] = predict(made.plan).pools;
      expect(pool).toMatchObject({
        usableBytes: choice.figures.usableBytes,
        tolerance: choice.figures.tolerance,
        survival: choice.figures.survival,
      });
    }),
  );
});

test("a choice is marked as beaten just when another is as good in everything and better in something", () => {
  fc.assert(
    fc.property(fc.array(fc.constantFrom(1, 2, 4, 8, 12), { minLength: 2, maxLength: 7 }), (tb) => {
      const { choices } = compare(...tb);
      const marks = beatenBy(choices);
      const all = (choice: (typeof choices)[number]) => {
        const { figures } = choice;
        return [
          figures.usableBytes,
          figures.tolerance,
          -figures.idleBytes,
          figures.speed?.read ?? -Infinity,
          figures.speed?.write ?? -Infinity,
          figures.speed?.smallWrites ?? -Infinity,
          -(figures.rebuildReads ?? Infinity),
          figures.rebuild ? -figures.rebuild.expected : -Infinity,
          figures.pricePerTB === null ? -Infinity : -figures.pricePerTB,
          -figures.drives,
          ...[1, 2, 3, 4].map((f) => -lossShare(figures, f)),
          figures.growth.byDrive?.gainBytes ?? 0,
          figures.growth.byGroup ? 1 : 0,
          figures.independent ? 1 : 0,
        ];
      };
      for (const choice of choices) {
        const own = all(choice);
        const winners = choices.filter((other) => {
          const theirs = all(other);
          return theirs.every((value, i) => value >= own[i]!) && theirs.some((value, i) => value > own[i]!);
        });
        const mark = marks.get(choice.id);
        expect(winners.map((winner) => winner.id)).toEqual(mark === undefined ? [] : expect.arrayContaining([mark]));
      }
    }),
  );
});

test("the frontier of two measures holds just the choices that no other beats in both", () => {
  fc.assert(
    fc.property(
      fc.array(fc.constantFrom(1, 2, 4, 8, 12), { minLength: 2, maxLength: 6 }),
      fc.constantFrom(...MEASURES),
      fc.constantFrom(...MEASURES),
      (tb, x, y) => {
        const known = compare(...tb).choices.filter(
          (choice) => x.of(choice.figures) !== null && y.of(choice.figures) !== null,
        );
        const at = (choice: (typeof known)[number]) => `${merit(x, choice.figures)} ${merit(y, choice.figures)}`;
        const unbeaten = known.filter(
          (a) =>
            !known.some(
              (b) =>
                merit(x, b.figures) >= merit(x, a.figures) &&
                merit(y, b.figures) >= merit(y, a.figures) &&
                at(a) !== at(b),
            ),
        );
        expect(new Set(frontier(known, x, y).map(at))).toEqual(new Set(unbeaten.map(at)));
      },
    ),
  );
});

test("needs step choices back with the reason, and the nearest change that mends it is the nearest", () => {
  const comparison = compare(4, 4, 4);
  const raid5 = named(comparison, "RAID 5");
  expect(
    misfits(raid5, { tolerance: 2, usableBytes: 10e12, bays: 2 }).map(({ reason }) => reason.replaceAll("\u00a0", " ")),
  ).toEqual(["survives only one failed drive", "2.00 TB short", "takes 3 bays"]);
  expect(
    misfits(raid5, { tolerance: 1, usableBytes: 8e12, bays: 3, grows: "by-drive", idleShare: 0, rebuildHours: 13 }),
  ).toEqual([]);
  expect(misfits(named(comparison, "RAID 0"), { rebuildHours: 100 })).toEqual([
    { need: "rebuildHours", reason: "cannot be rebuilt" },
  ]);
  const sizes = [2, 4, 8].map((tb) => nominalBytes(tb * 1000));
  const change = (needs: Parameters<typeof misfits>[1], free: number) =>
    nearestChange(raid5, needs, sizes, free, drivesOfTB(4, 4, 4), rules, 117e6);
  expect(change({ usableBytes: 12e12 }, 1)).toEqual({ kind: "add", count: 1, bytes: sizes[1] });
  expect(change({ usableBytes: 16e12 }, 1)).toBeNull();
  expect(change({ usableBytes: 16e12 }, 2)).toEqual({ kind: "add", count: 2, bytes: sizes[1] });
  expect(change({ tolerance: 2 }, 2)).toBeNull();
  // A group that is there already takes only drives that may join it.
  const hybrid = compareDrives({
    drives: drivesOfTB(4, 4, 8),
    rules: rulesOf({ set: "hybrid-box" }),
    network: 117e6,
    splits: false,
  }).choices.find((choice) => choice.name === "Hybrid (one)")!;
  const more = (leastBytes?: number) =>
    nearestChange(
      { groups: hybrid.groups, ...(leastBytes === undefined ? {} : { leastBytes }) },
      { usableBytes: 11e12 },
      sizes,
      1,
      drivesOfTB(4, 4, 8),
      rulesOf({ set: "hybrid-box" }),
      117e6,
    );
  expect([more(), more(sizes[2])].map((each) => each?.bytes)).toEqual([sizes[1], sizes[2]]);
});

test("idle room is that of the drive of which most lies idle", () => {
  const mixed = named(compare(4, 4, 8), "RAID 5");
  expect(misfits(mixed, { idleShare: 0.1 })[0]).toMatchObject({ need: "idleShare", reason: "50 % of a drive unused" });
  expect(misfits(mixed, { idleShare: 0.5 })).toEqual([]);
});

test("differences say what one has that the other has not", () => {
  const comparison = compare(4, 4, 4, 4);
  const said = differences(named(comparison, "RAID 6"), named(comparison, "RAID 5"), "TB").map((line) =>
    line.replaceAll("\u00a0", " "),
  );
  expect(said[0]).toBe("RAID 6 holds 4.00 TB less than RAID 5.");
  expect(said[1]).toBe("RAID 6 survives the loss of any 2 drives; RAID 5 survives the loss of any one drive.");
  expect(differences(named(comparison, "RAID 5"), named(comparison, "RAID 5"), "TB")).toEqual([]);
  expect(measureOf("loss-of-two").of(named(comparison, "RAID 10").figures)).toBeCloseTo(1 / 3);
});

test("growth follows the rules", () => {
  const at = (set: Parameters<typeof rulesOf>[0]["set"], ...tb: number[]) =>
    compareDrives({ drives: drivesOfTB(...tb), rules: rulesOf({ set }), network: 117e6, splits: false }).choices.find(
      (choice) => choice.name === layoutOf("raid5").shortName,
    )!.figures.growth;
  expect(at("classic-raid", 4, 4, 8)).toMatchObject({
    byDrive: { leastBytes: nominalBytes(4000) },
    byGroup: { drives: 3 },
  });
  expect(at("fixed-group", 4, 4, 4, 4)).toMatchObject({ byDrive: null, byGroup: { drives: 4 } });
});
