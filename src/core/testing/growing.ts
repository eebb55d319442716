import { TiB } from "../bytes/bytes";
import { nominalBytes } from "../bytes/nominalBytes";
import type { BoxRules, Drive, LayoutId, Plan } from "../document/plan";
import { usualDrive } from "../drives/usualDrive";
import { layoutOf } from "../layouts/registry";
import { AWAKE } from "../calendar/planCalendar";
import { rulesOf } from "../rules/ruleSets";
import { CAREFUL } from "../sequences/parts";
import { type Instance, priceIn } from "../bestWay/instance";
import { cheapestWay } from "../bestWay/search";
import type { WaySetting } from "../bestWay/bestWay";
import type { SoFar } from "../bestWay/soFar";
import type { GrowthWish } from "../bestWay/wish";

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

const isPairs = (layout: LayoutId): boolean => layoutOf(layout).stripe({}).copies === "all";
const isChunked = (layout: LayoutId): boolean => layoutOf(layout).chunked === true;
const parityOf = (layout: LayoutId): number => layoutOf(layout).stripe({}).parity;
const isOneBand = (layout: LayoutId): boolean => layoutOf(layout).countsSmallest === true && parityOf(layout) > 0;

/** A small instance that can be tried out in every way, of a layout and under rules that follow from its number. */
export function small(number: number, withDue = false): Instance {
  const next = drawnFrom(number * 7919 + 1);
  const from = <T>(list: readonly T[]): T => list[Math.floor(next() * list.length)] as T;
  const layouts: LayoutId[] = ["hybrid-1", "hybrid-2", "raid5", "raid6", "raid1", "copies-2", "copies-3"];
  const layout = layouts[number % layouts.length] as LayoutId;
  const fewest = { "hybrid-2": 4, raid6: 4, raid5: 3, "copies-3": 3 }[layout as string] ?? 2;
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
  const needs = Array.from({ length: years }, () => (need += Math.floor(next() * (isPairs(layout) ? 3 : 6))));
  const rules: Partial<BoxRules> = {
    joining: isChunked(layout) ? "any-size" : from(["as-largest-member", "as-smallest-member"]),
    replacing: from(["pull-first", "old-attached"]),
    widening: isPairs(layout) ? "further-group" : "one-drive",
    minimumDrives: {},
    shrinkVolumes: true,
  };
  const made = yearly(layout, [sizes], needs, sold, isPairs(layout) ? Math.max(4, bays) : bays, rules);
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

const COMPARED: readonly LayoutId[] = ["hybrid-1", "raid5", "raid6", "raid1", "copies-2"];

/** An instance of yearly steps, too large to be tried in every way: 4 to 8 bays, 4 to 6 years, three or four sizes. */
export function medium(number: number): Instance {
  const next = drawnFrom(number * 104_729 + 7);
  const whole = (least: number, most: number) => least + Math.floor(next() * (most - least + 1));
  const layout = COMPARED[number % COMPARED.length] as LayoutId;
  const bays = whole(parityOf(layout) > 1 ? 5 : 4, isPairs(layout) ? 8 : 6);
  const count = isOneBand(layout) ? parityOf(layout) + 2 : 2;
  const size = whole(2, 6);
  const sizes = isPairs(layout) ? [size, size] : Array.from({ length: count }, () => whole(2, 8)).sort((a, b) => a - b);
  const offered = [...new Set([whole(3, 5), whole(6, 8), whole(9, 12), 16])];
  const sold = offered.map((each) => ({
    size: each,
    cents: each * 1800 + whole(0, 4000),
    ...(next() < 0.3 ? { from: whole(1, 2) } : {}),
  }));
  let need = whole(2, 5);
  const needs = Array.from({ length: whole(4, 5) }, () => (need += whole(0, isPairs(layout) ? 6 : 8)));
  const rules: Partial<BoxRules> = {
    joining: isChunked(layout) ? "any-size" : next() < 0.5 ? "as-largest-member" : "as-smallest-member",
    widening: isPairs(layout) ? "further-group" : "one-drive",
    minimumDrives: {},
  };
  return { ...yearly(layout, [sizes], needs, sold, bays, rules), equalPairs: isPairs(layout) };
}

const TB = [2, 4, 6, 8, 10, 12, 16, 18, 20, 24];
const CENTS = [6800, 9200, 13_500, 16_200, 21_400, 23_800, 30_500, 34_900, 38_900, 52_000];

/** What a group of drives of some sizes holds, near enough to begin with. */
function heldBy(layout: LayoutId, sizes: readonly number[]): number {
  const total = sizes.reduce((sum, size) => sum + size, 0);
  if (isPairs(layout) || isChunked(layout)) return total / 2.2;
  const rest = sizes.slice(0, sizes.length - parityOf(layout));
  return isOneBand(layout) ? rest.length * sizes[0]! : rest.reduce((sum, size) => sum + size, 0);
}

/** A box of twelve bays for ten years of months, with ten sizes, some of them sold only later. */
export function large(layout: LayoutId, number: number, rules: Partial<BoxRules> = {}): Instance {
  const next = drawnFrom(number);
  const [bays, months] = [12, 120];
  const count = isPairs(layout) ? 4 : 3 + Math.floor(next() * 4);
  const drawn = Array.from({ length: count }, () => TB[Math.floor(next() * 5)]!).sort((a, b) => a - b);
  const sizes = isPairs(layout) ? [drawn[0]!, drawn[0]!, drawn[2]!, drawn[2]!] : drawn;
  const isHalved = isPairs(layout) || isChunked(layout);
  const start = Math.max(1, heldBy(layout, sizes) * (0.7 + 0.25 * next()));
  const most = (isHalved ? 6 : 10) * 24 * (0.35 + 0.35 * next());
  const fall = 0.08 + 0.1 * next();
  const later = TB.map((size) => (size >= 20 && next() < 0.5 ? Math.floor(next() * 48) : 0));
  const groups = isPairs(layout) ? [sizes.slice(0, 2), sizes.slice(2)] : [sizes];
  const made = yearly(layout, groups, [1], [], bays, {
    joining: layoutOf(layout).cutsAtSizes ? "as-largest-member" : isChunked(layout) ? "any-size" : "as-smallest-member",
    widening: isPairs(layout) ? "further-group" : "several-drives",
    ...rules,
  });
  return {
    ...made,
    months,
    needs: Float64Array.from({ length: months }, (_, m) => (start + ((most - start) * m) / (months - 1)) * 1e12),
    tolerance: Array.from({ length: months }, () => 1),
    sold: TB.map((size, i) => ({
      bytes: nominalBytes(size * 1000),
      cents: Float64Array.from({ length: months }, (_, m) => (m < later[i]! ? Infinity : priceIn(CENTS[i]!, fall, m))),
    })),
    groups: made.groups.map((group) => ({
      ...group,
      drives: group.drives.map((each) => ({
        ...each,
        drive: { ...each.drive, bytes: nominalBytes((each.drive.bytes / TiB) * 1000) },
      })),
    })),
    equalPairs: isPairs(layout),
  };
}

/** The hard class: single parity over twelve bays, eight unlike old drives, and demand near the limit of the box. */
export function hard(number: number): Instance {
  const next = drawnFrom(number * 31 + 5);
  const made = large("raid5", number);
  const [group] = made.groups;
  const pattern = group!.drives[0]!;
  const sizes = [1, 2, 3, 4, 5, 6, 8, 10].map((size) => size + (next() < 0.5 ? 0 : 1));
  const drives = sizes
    .sort((a, b) => a - b)
    .map((size, i) => ({
      ...pattern,
      drive: { ...pattern.drive, id: `d${i + 1}`, bytes: nominalBytes(size * 1000), place: { bay: i + 1 } },
    }));
  const [start, most] = [7 * sizes[0]! * 0.9, 11 * 24 * (0.8 + 0.15 * next())];
  return {
    ...made,
    needs: Float64Array.from(
      { length: made.months },
      (_, m) => (start + ((most - start) * m) / (made.months - 1)) * 1e12,
    ),
    groups: [{ group: { ...group!.group, drives: drives.map(({ drive }) => drive.id) }, drives }],
  };
}

/** What a small hybrid may be asked for: five years, in which it comes to hold three and a half times as much. */
export const fiveYears: GrowthWish = {
  pool: "p1",
  months: 60,
  demand: Array.from({ length: 60 }, (_, month) => (8 + (20 * month) / 59) * TiB),
  headroom: 0,
  tolerance: 1,
  layouts: ["hybrid-1"],
  bays: 4,
  prices: [
    { bytes: 4 * TiB, cents: 9000 },
    { bytes: 8 * TiB, cents: 16_000 },
    { bytes: 12 * TiB, cents: 24_000 },
    { bytes: 16 * TiB, cents: 30_000 },
  ],
  fallPerYear: 0.1,
  aim: "money",
  retireAfterYears: null,
  centsPerDriveYear: 0,
  equalPairs: false,
};

/** In which setting ways are laid out: with all care, on a day, awake at any hour of it. */
export const waySetting = (document: Plan, day: string): WaySetting => ({
  document,
  family: "TB",
  day,
  variants: CAREFUL,
  calendar: { id: "c", start: day, timeZone: "UTC", hands: [...AWAKE], excluded: [], deliveryDays: 0 },
});
