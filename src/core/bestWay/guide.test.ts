import { rulesOf } from "../rules/ruleSets";
import { TiB } from "../bytes/bytes";
import type { BoxRules, Drive, LayoutId, Plan } from "../document/plan";
import { usualDrive } from "../drives/usualDrive";
import { type Instance, priceIn } from "./instance";
import { cheapestWay, type SoFar } from "./search";

/** A year is a month here. */
export function yearly(
  layout: LayoutId,
  groups: number[][],
  needs: number[],
  sold: { size: number; cents: number; from?: number }[],
  bays: number,
  rules: Partial<BoxRules> = {},
): Instance {
  const box = { ...rulesOf({ set: "classic-raid" }), arrayFormat: "plain" as const, systemReserveBytes: 0, ...rules };
  let n = 0;
  const drive = (size: number): Drive => ({
    ...usualDrive({ bytes: size * TiB, medium: "hdd", bus: "sata" }),
    id: `d${(n += 1)}`,
    place: { bay: n },
  });
  const made = groups.map((sizes, g) => {
    const drives = sizes.map(drive);
    return {
      group: { id: `g${g}`, layout, drives: drives.map(({ id }) => id) },
      drives: drives.map((each) => ({ drive: each, due: Infinity })),
    };
  });
  return {
    plan: { drives: [] } as unknown as Plan,
    pool: { id: "p" } as never,
    rules: box,
    months: needs.length,
    needs: Float64Array.from(needs, (need) => need * TiB),
    tolerance: needs.map(() => 1),
    sold: sold.map(({ size, cents, from = 0 }) => ({
      bytes: size * TiB,
      cents: Float64Array.from(needs, (_, year) => (year < from ? Infinity : priceIn(cents, 0.1, year * 12))),
    })),
    bays,
    groups: made,
    layouts: [layout],
    life: Infinity,
    centsPerDriveYear: 0,
    equalPairs: false,
  };
}

export function ended(instance: Instance): SoFar {
  const steps = cheapestWay(instance);
  for (;;) {
    const { done, value } = steps.next();
    if (done) return value;
  }
}

const SOLD = [
  { size: 4, cents: 9000 },
  { size: 8, cents: 16000 },
  { size: 12, cents: 24000 },
  { size: 16, cents: 30000 },
];

test("the guide's examples come out to the cent", () => {
  const hybrid = yearly("hybrid-1", [[4, 4, 8]], [8, 12, 14, 20, 24, 28], SOLD, 4, { joining: "as-largest-member" });
  expect(ended(hybrid)).toMatchObject({ least: 47642, best: { cents: 47642 } });
  const parity = yearly("raid5", [[4, 4, 4]], [8, 11, 14, 16, 24, 30], SOLD, 5, { joining: "as-smallest-member" });
  expect(ended(parity)).toMatchObject({ least: 58854, best: { cents: 58854 } });
  const late = SOLD.map((each) => (each.size === 16 ? { ...each, from: 2 } : each));
  const pairs = yearly("raid1", [[4, 4]], [4, 7, 12, 16, 24, 30], late, 6, { widening: "further-group" });
  expect(ended(pairs)).toMatchObject({ least: 82566, best: { cents: 82566 } });
  expect(ended({ ...pairs, equalPairs: true })).toMatchObject({ least: 82566, best: { cents: 82566 } });
});
