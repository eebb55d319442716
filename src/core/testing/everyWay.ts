import { TiB } from "../bytes/bytes";
import type { LayoutId } from "../document/plan";
import type { Instance } from "../bestWay/instance";

// The cheapest way to grow by trying everything: every act in every month, also long before it is wanted, on any drive,
// with no rule about which ways can be left out. It shares nothing with the search but the instance, and works out what
// a pool holds by the formulas of the trade on its own. Sizes are whole TiB.

/** Groups of drives, each as its size in TiB and the month by which it must go. */
type Pool = [size: number, due: number][][];

const sum = (sizes: readonly number[]): number => sizes.reduce((total, size) => total + size, 0);

/** What a group holds, by its sizes from the smallest. */
const HOLDS: Partial<Record<LayoutId, (sizes: readonly number[]) => number>> = {
  "hybrid-1": (sizes) => sum(sizes) - sizes.at(-1)!,
  "hybrid-2": (sizes) => sum(sizes) - sizes.at(-1)! - sizes.at(-2)!,
  raid5: (sizes) => (sizes.length - 1) * sizes[0]!,
  raid6: (sizes) => (sizes.length - 2) * sizes[0]!,
  raid1: (sizes) => sizes[0]!,
  "copies-2": (sizes) => Math.min(sum(sizes) / 2, sum(sizes) - sizes.at(-1)!),
  "copies-3": (sizes) =>
    Math.min(sum(sizes) / 3, (sum(sizes) - sizes.at(-1)!) / 2, sum(sizes) - sizes.at(-1)! - sizes.at(-2)!),
};

/** Layouts of which a pool gets further pairs, and never a third drive to one. */
const PAIRED: ReadonlySet<LayoutId> = new Set(["raid1"]);

const bySize = (a: [number, number], b: [number, number]) => a[0] - b[0] || a[1] - b[1];

const keyOf = (pool: Pool): string =>
  pool
    .map((group) => [...group].sort(bySize).join(";"))
    .sort()
    .join("|");

/** The usual rate of a hard disk of so many TiB, in bytes a second. */
function rateOf(size: number): number {
  const bytes = size * TiB;
  return bytes < 2.5e12 ? 130e6 : bytes < 9e12 ? 150e6 : 190e6;
}

/** Hours to fill a drive in the place of another, as high as it was in use, at 0.6 of the rate of the slowest there. */
function hoursFor(layout: LayoutId, sizes: readonly number[], old: number, size: number): number {
  const others = sizes.toSpliced(sizes.indexOf(old), 1);
  const used = layout.startsWith("copies")
    ? old
    : layout.startsWith("hybrid")
      ? Math.min(old, others.at(-1)!)
      : sizes[0]!;
  return (used * TiB) / (0.6 * Math.min(...[...others, size].map(rateOf))) / 3600;
}

/** Everything that can be done with one drive or pair, and what it costs; hours are those to fill the new drive. */
function everyAct(instance: Instance, pool: Pool, month: number): { pool: Pool; cents: number; hours: number }[] {
  const [layout] = instance.layouts as [LayoutId];
  const { bays, rules } = instance;
  const free = bays - sum(pool.map((group) => group.length));
  const sold = instance.sold.flatMap(({ bytes, cents }): [number, number][] =>
    cents[month]! < Infinity ? [[bytes / TiB, cents[month]!]] : [],
  );
  const due = month + instance.life >= instance.months ? Infinity : month + instance.life;
  const acts: { pool: Pool; cents: number; hours: number }[] = [];
  pool.forEach((group, g) => {
    const others = pool.filter((_, i) => i !== g);
    const sizes = group.map(([size]) => size).sort((a, b) => a - b);
    const least = layout.startsWith("copies")
      ? 0
      : layout.startsWith("hybrid") && rules.joining === "as-largest-member"
        ? sizes.at(-1)!
        : sizes[0]!;
    for (const [size, cents] of sold) {
      if (!PAIRED.has(layout) && free > 0 && size >= least)
        acts.push({ pool: [...others, [...group, [size, due]]], cents, hours: 0 });
      group.forEach(([old], d) => {
        if (size < old) return;
        const next = group.map((each, i): [number, number] => (i === d ? [size, due] : each));
        const exposed = rules.replacing === "pull-first" || free === 0;
        acts.push({ pool: [...others, next], cents, hours: exposed ? hoursFor(layout, sizes, old, size) : 0 });
      });
    }
    if (layout.startsWith("copies") && group.length > Number(layout.at(-1)))
      group.forEach(([, when], d) => {
        if (when <= month) acts.push({ pool: [...others, group.filter((_, i) => i !== d)], cents: 0, hours: 0 });
      });
  });
  if (PAIRED.has(layout) && free >= 2)
    for (const [one, first] of sold)
      for (const [two, second] of sold)
        if (one <= two)
          acts.push({
            pool: [
              ...pool,
              [
                [one, due],
                [two, due],
              ],
            ],
            cents: first + second,
            hours: 0,
          });
  return acts;
}

/**
 * The least money with which a pool lasts, in cents; Infinity where there is no way.
 *
 * @param worth what is made least; money alone, or with something for each exposed hour
 */
export function cheapestOfEveryWay(instance: Instance): number {
  const [layout] = instance.layouts as [LayoutId];
  const holds = HOLDS[layout]!;
  let now = new Map<string, { pool: Pool; cents: number }>();
  const first: Pool = instance.groups.map(({ drives }) => drives.map(({ drive, due }) => [drive.bytes / TiB, due]));
  now.set(keyOf(first), { pool: first, cents: 0 });
  for (let month = 0; month < instance.months; month += 1) {
    const need = instance.needs[month]! / TiB;
    const waiting = [...now.values()].sort((a, b) => a.cents - b.cents);
    const done = new Map<string, { pool: Pool; cents: number }>();
    while (waiting.length > 0) {
      const next = waiting.shift()!;
      const key = keyOf(next.pool);
      if ((done.get(key)?.cents ?? Infinity) <= next.cents) continue;
      done.set(key, next);
      for (const { pool, cents } of everyAct(instance, next.pool, month)) {
        const spent = next.cents + cents;
        if ((done.get(keyOf(pool))?.cents ?? Infinity) <= spent) continue;
        let at = waiting.findIndex((each) => each.cents > spent);
        if (at < 0) at = waiting.length;
        waiting.splice(at, 0, { pool, cents: spent });
      }
    }
    now = new Map(
      [...done].filter(
        ([, { pool }]) =>
          sum(pool.map((group) => holds(group.map(([size]) => size).sort((a, b) => a - b)))) >= need &&
          pool.every((group) => group.every(([, due]) => due > month)),
      ),
    );
  }
  return Math.min(Infinity, ...[...now.values()].map(({ cents }) => cents));
}

interface Spent {
  cents: number;
  hours: number;
}

const isBeaten = ({ cents, hours }: Spent, by: readonly Spent[]): boolean =>
  by.some((each) => each.cents <= cents && each.hours <= hours + 1e-9);

/** Each pair of money and exposed hours that no way beats in both, the cheapest first, tried in the same way. */
export function frontOfEveryWay(instance: Instance): Spent[] {
  const [layout] = instance.layouts as [LayoutId];
  const holds = HOLDS[layout]!;
  type Reached = { pool: Pool; ways: Spent[] };
  const first: Pool = instance.groups.map(({ drives }) => drives.map(({ drive, due }) => [drive.bytes / TiB, due]));
  let now = new Map<string, Reached>([[keyOf(first), { pool: first, ways: [{ cents: 0, hours: 0 }] }]]);
  for (let month = 0; month < instance.months; month += 1) {
    const reached = new Map<string, Reached>();
    const waiting = [...now.values()].flatMap(({ pool, ways }) => ways.map((way) => ({ pool, way })));
    while (waiting.length > 0) {
      const { pool, way } = waiting.pop()!;
      const at = reached.get(keyOf(pool)) ?? { pool, ways: [] };
      if (isBeaten(way, at.ways)) continue;
      at.ways = [...at.ways.filter((each) => !isBeaten(each, [way])), way];
      reached.set(keyOf(pool), at);
      for (const act of everyAct(instance, pool, month))
        waiting.push({ pool: act.pool, way: { cents: way.cents + act.cents, hours: way.hours + act.hours } });
    }
    const need = instance.needs[month]! / TiB;
    now = new Map(
      [...reached].filter(
        ([, { pool }]) =>
          sum(pool.map((group) => holds(group.map(([size]) => size).sort((a, b) => a - b)))) >= need &&
          pool.every((group) => group.every(([, due]) => due > month)),
      ),
    );
  }
  const all = [...now.values()].flatMap(({ ways }) => ways).sort((a, b) => a.cents - b.cents || a.hours - b.hours);
  return all.filter((way, i) => !isBeaten(way, all.slice(0, i)));
}

/** The least money if no more than so much is spent in any year of so many months, tried in the same way. */
export function cheapestWithin(instance: Instance, perYear: number, year: number, mostActs = Infinity): number {
  const [layout] = instance.layouts as [LayoutId];
  const holds = HOLDS[layout]!;
  type Reached = { pool: Pool; cents: number; spent: number; acts: number };
  const first: Pool = instance.groups.map(({ drives }) => drives.map(({ drive, due }) => [drive.bytes / TiB, due]));
  let now: Reached[] = [{ pool: first, cents: 0, spent: 0, acts: 0 }];
  const isNoMore = (one: Reached, other: Reached) =>
    one.cents <= other.cents && one.spent <= other.spent && (mostActs === Infinity || one.acts <= other.acts);
  for (let month = 0; month < instance.months; month += 1) {
    const waiting = month % year === 0 ? now.map((each) => ({ ...each, spent: 0 })) : [...now];
    const reached = new Map<string, Reached[]>();
    while (waiting.length > 0) {
      const next = waiting.pop()!;
      const key = keyOf(next.pool);
      const list = reached.get(key) ?? [];
      if (next.acts > mostActs || list.some((each) => isNoMore(each, next))) continue;
      reached.set(key, [...list.filter((each) => !isNoMore(next, each)), next]);
      for (const { pool, cents } of everyAct(instance, next.pool, month))
        if (next.spent + cents <= perYear)
          waiting.push({ pool, cents: next.cents + cents, spent: next.spent + cents, acts: next.acts + 1 });
    }
    const need = instance.needs[month]! / TiB;
    now = [...reached.values()]
      .flat()
      .filter(
        ({ pool }) =>
          sum(pool.map((group) => holds(group.map(([size]) => size).sort((a, b) => a - b)))) >= need &&
          pool.every((group) => group.every(([, due]) => due > month)),
      );
  }
  return Math.min(Infinity, ...now.map(({ cents }) => cents));
}
