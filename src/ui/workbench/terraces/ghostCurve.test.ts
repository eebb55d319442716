import fc from "fast-check";
import { boxWith } from "@/core/testing/boxWith";
import { bestCurve } from "@/core/nextDrive/sizeCurve";
import { ghostScale, pointWords } from "./ghostCurve";

const plan = boxWith("hybrid-box", "hybrid-1", [4, 4, 8]);
const { curve, at } = bestCurve(plan, plan.pools[0]!)!;
const PLOT = { foot: 400, top: 20, most: 12e12 };
const scale = ghostScale(curve, PLOT, { width: 90 });

test("the curve stands as high as a drive and as far to the right as it gains, within its bay", () => {
  for (const point of curve.filter((each) => scale.fits(each.bytes))) {
    expect(400 - scale.yOf(point.bytes)).toBeCloseTo((point.bytes / 12e12) * 380, 0);
    const x = scale.xOf(point.gainBytes);
    expect(x >= 5 && x <= 85).toBe(true);
  }
  expect(Math.max(...curve.map((point) => scale.xOf(point.gainBytes)))).toBe(85);
  expect(scale.fits(curve.at(-1)!.bytes)).toBe(false);
});

test("the size under the hand is the one whose height is nearest, and never one above the picture", () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 420 }), (y) => {
      const chosen = curve[scale.nearest(y)]!;
      expect(scale.fits(chosen.bytes)).toBe(true);
      const away = (bytes: number) => Math.abs(scale.yOf(bytes) - y);
      for (const { bytes } of curve.filter((each) => scale.fits(each.bytes)))
        expect(away(chosen.bytes)).toBeLessThanOrEqual(away(bytes));
    }),
  );
  expect(curve[scale.middle]!.bytes).toBeGreaterThanOrEqual(12e12 * 0.74);
  expect(curve[scale.middle - 1]!.bytes).toBeLessThan(12e12 * 0.74);
});

test("each size is told by what it adds, and what a second one then would, or by why it cannot come", () => {
  expect(at).toEqual({ kind: "add", group: "g1" });
  const of = (terabytes: number) => {
    const index = curve.findIndex((each) => each.bytes > (terabytes - 0.1) * 1e12);
    return pointWords(curve, index, "TB").replace(/\u00a0/g, " ");
  };
  expect(of(8)).toMatch(/^An 8 TB drive here: /);
  expect(of(4)).toBe("A 4 TB drive here: Too small to join: your box wants at least 8.00 TB.");
  // Above the largest drive a single one gains nothing more, until a second comes.
  expect(of(12)).toMatch(/^A 12 TB drive here: \+7\.99 TB\. \+19\.98 TB once a second one comes\. From 8 TB upwards /);
  expect(pointWords(curve, curve.length, "TB")).toBe("");
});

test("of several groups the one that gains most gives the curve", () => {
  const pool = plan.pools[0]!;
  const [group] = pool.groups;
  const small = { ...group!, id: "g0", drives: ["d4", "d5", "d6"] };
  const drives = [...plan.drives, ...boxWith("hybrid-box", "hybrid-1", [4, 4, 8, 1, 1, 1]).drives.slice(3)];
  for (const groups of [
    [small, group!],
    [group!, small],
  ]) {
    const pools = [{ ...pool, groups }];
    const best = (of: typeof groups) =>
      Math.max(...bestCurve({ ...plan, drives, pools }, { ...pool, groups: of })!.curve.map((each) => each.gainBytes));
    expect(best([group!])).not.toBe(best([small]));
    expect(best(groups)).toBe(Math.max(best([group!]), best([small])));
  }
  expect(bestCurve(plan, { ...pool, groups: [] })).toBeNull();
});
