import fc from "fast-check";
import type { Drive, LayoutId } from "../document/plan";
import { layoutOf, layouts } from "../layouts/registry";
import { rulesOf } from "../rules/ruleSets";
import { anyRules, drivesOfTB, testDrive } from "../testing/arbitraries";
import { groupValues } from "./groupValues";
import { bestSplits } from "./splits";

const rules = rulesOf({ set: "classic-raid" });
const hybrids = rulesOf({ set: "hybrid-box" });
const shape = (tb: number[], box = rules) =>
  bestSplits(drivesOfTB(...tb), box).splits.map(
    ({ groups, leftOut, usableBytes }) =>
      `${groups.map((group) => `${group.layout}(${group.drives.map((id) => tb[Number(id.slice(1)) - 1]).join("+")})`).join(" ")}${leftOut.length > 0 ? ` without ${leftOut.map((id) => tb[Number(id.slice(1)) - 1]).join(", ")}` : ""} ` +
      `= ${Math.round(usableBytes / 1e11) / 10}`,
  );

test("an old small drive that drags the rest down is left out", () => {
  expect(shape([0.5, 4, 4, 4])).toContain("raid5(4+4+4) without 0.5 = 8");
});

test("two sizes are parted by size, also with different layouts", () => {
  expect(shape([4, 12, 4, 12, 4])).toContain("raid5(4+4+4) raid1(12+12) = 20");
  expect(shape([4, 8, 4, 8, 4, 8])).toContain("raid5(4+4+4) raid5(8+8+8) = 24");
});

/** Every way to part drives into groups, some left out. */
function* partitions(drives: readonly Drive[]): Generator<Drive[][]> {
  const [first, ...rest] = drives;
  if (!first) {
    yield [];
    return;
  }
  for (const parts of partitions(rest)) {
    yield parts;
    yield [[first], ...parts];
    for (let i = 0; i < parts.length; i += 1) yield parts.map((part, j) => (i === j ? [first, ...part] : part));
  }
}

/** The most that a number of groups can hold, by trying everything. */
function mostByForce(
  drives: readonly Drive[],
  box: typeof rules,
  offered: readonly LayoutId[],
  tolerance: number,
  groups: number,
): { usable: number; fatal: number } {
  const valuers = offered.map((id) => groupValues(layoutOf(id), box));
  let best = { usable: 0, fatal: 0 };
  for (const parts of partitions(drives)) {
    if (parts.length !== groups) continue;
    const sum = parts.reduce<{ usable: number; fatal: number } | null>(
      (soFar, part) => {
        if (!soFar) return null;
        const values = valuers
          .flatMap((valuer) => valuer([...part].sort((a, b) => a.bytes - b.bytes)) ?? [])
          .filter((value) => value.tolerance >= tolerance && value.usableBytes > 0);
        if (values.length === 0) return null;
        const usable = Math.max(...values.map((value) => value.usableBytes));
        const fatal = Math.min(
          ...values
            .filter((value) => value.usableBytes === usable)
            .map((value) => (value.tolerance === tolerance ? value.fatalSets : 0)),
        );
        return { usable: soFar.usable + usable, fatal: soFar.fatal + fatal };
      },
      { usable: 0, fatal: 0 },
    );
    if (sum && (sum.usable > best.usable || (sum.usable === best.usable && sum.fatal < best.fatal))) best = sum;
  }
  return best;
}

const sizes = fc.oneof(
  fc.constantFrom(1, 2, 4, 8, 12).map((tb) => tb * 1e12),
  fc.integer({ min: 3e8, max: 2e13 }),
);

test("what is found is what trying everything finds, on up to 8 drives and any box", () => {
  fc.assert(
    fc.property(fc.array(sizes, { minLength: 2, maxLength: 7 }), anyRules, (bytes, box) => {
      const drives = bytes.map((each, i) => testDrive(`d${i + 1}`, each));
      const { splits, exact } = bestSplits(drives, box);
      expect(exact).toBe(true);
      for (const layout of layouts.filter((each) => each.splits && box.layouts.includes(each.id))) {
        const tolerance = { raid6: 2, "hybrid-2": 2, "triple-parity": 3 }[layout.id as string] ?? 1;
        for (let groups = 2; groups <= Math.floor(drives.length / 2); groups += 1) {
          const force = mostByForce(drives, box, [layout.id], tolerance, groups);
          const found = splits.filter(
            (split) => split.groups.length === groups && split.groups.every((group) => group.layout === layout.id),
          );
          expect(Math.max(0, ...found.map((split) => split.usableBytes))).toBe(force.usable);
        }
      }
    }),
    { numRuns: 60 },
  );
});

test("mixtures too, and eight drives", () => {
  fc.assert(
    fc.property(fc.array(sizes, { minLength: 8, maxLength: 8 }), (bytes) => {
      const drives = bytes.map((each, i) => testDrive(`d${i + 1}`, each));
      const { splits } = bestSplits(drives, rules);
      for (const groups of [2, 3]) {
        const force = mostByForce(drives, rules, ["raid1", "raid5", "raid6"], 1, groups);
        const found = splits.filter((split) => split.groups.length === groups);
        expect(Math.max(...found.map((split) => split.usableBytes))).toBe(force.usable);
      }
    }),
    { numRuns: 6 },
  );
});

test("among splits that hold as much, the one with the fewest fatal pairs: 3 + 3 of six equal drives, not 4 + 2", () => {
  const box = rulesOf({ set: "hybrid-box" });
  const split = bestSplits(drivesOfTB(4, 4, 4, 4, 4, 4), box).splits.find(
    ({ groups }) => groups.length === 2 && groups[0]!.layout === "hybrid-1",
  )!;
  expect(split.groups.map((group) => group.drives.length)).toEqual([3, 3]);
});

test(
  "beyond twelve drives groups are made of neighbours in size: for hybrids that is not proved to be best, for " +
    "the rest it is",
  () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 20 }), { minLength: 4, maxLength: 8 }), (tb) => {
        const drives = drivesOfTB(...tb);
        const totals = (exhaustively: boolean) =>
          bestSplits(drives, hybrids, 8, exhaustively).splits.map((split) => split.usableBytes);
        totals(false).forEach((usable, i) => expect(usable).toBeLessThanOrEqual(totals(true)[i]!));
      }),
      { numRuns: 40 },
    );
    const thirteen = drivesOfTB(...Array.from({ length: 13 }, () => 4));
    expect([bestSplits(thirteen, rules).exact, bestSplits(thirteen, hybrids).exact]).toEqual([true, false]);
  },
);
