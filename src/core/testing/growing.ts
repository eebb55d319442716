import { TiB } from "../bytes/bytes";
import type { BoxRules, Drive, LayoutId, Plan } from "../document/plan";
import { usualDrive } from "../drives/usualDrive";
import { rulesOf } from "../rules/ruleSets";
import { type Instance, priceIn } from "../bestWay/instance";
import { cheapestWay, type SoFar } from "../bestWay/search";

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
    centsPerUnit: 100,
  };
}

/** What a search ends with. */
export function last<T>(steps: Generator<unknown, T>): T {
  for (;;) {
    const { done, value } = steps.next();
    if (done) return value as T;
  }
}

export const ended = (instance: Instance): SoFar => last(cheapestWay(instance));

/** Numbers from 0 to 1 that follow from a seed. */
export function drawnFrom(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296;
  };
}

/** A small instance that can be tried out in every way, of a layout and under rules that follow from its number. */
export function small(number: number, withDue = false): Instance {
  const next = drawnFrom(number * 7919 + 1);
  const from = <T>(list: readonly T[]): T => list[Math.floor(next() * list.length)] as T;
  const layouts: LayoutId[] = ["hybrid-1", "hybrid-2", "raid5", "raid6", "raid1", "copies-2"];
  const layout = layouts[number % layouts.length] as LayoutId;
  const fewest = { "hybrid-2": 4, raid6: 4, raid5: 3, "hybrid-1": 2, "copies-2": 2 }[layout as string] ?? 2;
  const bays = Math.max(fewest, 3 + Math.floor(next() * 3));
  // Old drives can be larger than all that is sold.
  const sizes = Array.from({ length: fewest }, () => 1 + Math.floor(next() * 9)).sort((a, b) => a - b);
  const years = 3 + Math.floor(next() * 3);
  const sold = [...new Set(Array.from({ length: 3 }, () => 1 + Math.floor(next() * 9)))]
    .sort((a, b) => a - b)
    .map((size) => ({
      size,
      cents: size * 2000 + Math.floor(next() * 5000),
      ...(next() < 0.2 ? { from: Math.floor(next() * 3) } : {}),
    }));
  let need = 1 + Math.floor(next() * 4);
  const needs = Array.from({ length: years }, () => (need += Math.floor(next() * (layout === "raid1" ? 3 : 6))));
  const rules: Partial<BoxRules> = {
    joining: layout === "copies-2" ? "any-size" : from(["as-largest-member", "as-smallest-member"]),
    replacing: from(["pull-first", "old-attached"]),
    widening: layout === "raid1" ? "further-group" : "one-drive",
    minimumDrives: {},
    shrinkVolumes: true,
  };
  const made = yearly(layout, [sizes], needs, sold, layout === "raid1" ? Math.max(4, bays) : bays, rules);
  if (!withDue) return made;
  return {
    ...made,
    life: from([2, 3, Infinity]),
    groups: made.groups.map((group) => ({
      ...group,
      drives: group.drives.map((each) => ({ ...each, due: next() < 0.4 ? 1 + Math.floor(next() * 4) : Infinity })),
    })),
  };
}
