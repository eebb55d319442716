import type { Bytes } from "../bytes/bytes";
import type { LayoutId } from "../document/plan";
import type { Layout } from "../layouts/layout";
import { layoutOf } from "../layouts/registry";
import { type Boxes, type BoxThen, edgesOf, type Kind } from "./boxes";
import type { Instance } from "./instance";

/** The least that must still be spent from a month on, in cents: never more than any way from there costs. */
export type Bound = (box: BoxThen, month: number) => number;

/** What a bound by a table counts: something of which each purchase brings at most its own size. */
interface Measure {
  /** Of a box as it is. */
  of: (box: BoxThen) => Bytes;
  /** What is wanted of it in each month. */
  wanted: (need: Bytes) => Bytes;
  /** Of what counts as one place: a drive, or a pair of equal drives. */
  places: (drives: number) => number;
  drivesEach: number;
}

/** How finely a table counts. */
const UNITS = 320;

/** No table is larger than this. */
const MOST_ENTRIES = 16_000_000;

const UNKNOWN = -1;

/** What counts of a drive in a hybrid: as far as it reaches a height at which the group is cut already. */
function countsOf({ length }: Kind, edges: readonly Bytes[]): Bytes {
  const top = edges.at(-1) ?? 0;
  return length >= top ? length : (edges.findLast((edge) => edge <= length) ?? 0);
}

/**
 * A bound by what is lacking in all: what a box has is brought up, a drive at a time, in a free bay or in the place of
 * the smallest. Adding a drive can make the smallest smaller: then replacing it brings more.
 *
 * @returns null where a table would be too large to be worth it
 */
function byLack(instance: Instance, boxes: Boxes, measure: Measure): Bound {
  const { months, needs, sold, bays } = instance;
  const most = measure.wanted(needs[months - 1] as number);
  const edges = edgesOf(instance);
  const unit = Math.max(1, most / UNITS);
  const wanted = Int32Array.from(needs, (need) => Math.floor(measure.wanted(need) / unit + 1e-9));
  const gains = sold.map(({ bytes }) => Math.ceil(boxes.kindOf(bytes, Infinity).length / unit - 1e-9));
  const running = Int32Array.from(needs, (_, month) =>
    Math.round((instance.centsPerDriveYear * measure.drivesEach * (months - month)) / 12),
  );
  const slots = measure.places(bays) + 1;
  const goal = (wanted[months - 1] as number) + 1;
  const smallests = Math.max(1, ...gains) + 1;
  const size = slots * smallests * goal;
  const tables: (Int32Array | undefined)[] = [];
  // The month in which so much is too little.
  const lacking = new Int32Array(goal);
  for (let units = 0, month = 0; units < goal; units += 1) {
    while (month < months && (wanted[month] as number) <= units) month += 1;
    lacking[units] = month;
  }
  const isTooLarge = size > MOST_ENTRIES;

  function least(from: number, units: number, free: number, smallest: number): number {
    if (units >= goal) return 0;
    const month = Math.max(from, lacking[units] as number);
    if (month >= months) return 0;
    const table = (tables[month] ??= new Int32Array(size).fill(UNKNOWN));
    const at = (free * smallests + smallest) * goal + units;
    const known = table[at] as number;
    if (known !== UNKNOWN) return known;
    let best = 0x3fffffff;
    for (let i = 0; i < gains.length; i += 1) {
      const price = (sold[i]?.cents[month] as number) * measure.drivesEach;
      if (price >= best) continue;
      const gain = gains[i] as number;
      if (free > 0) {
        const then = price + (running[month] as number) + least(month, units + gain, free - 1, Math.min(smallest, gain));
        if (then < best) best = then;
      }
      if (gain > smallest) {
        const then = price + least(month, units + gain - smallest, free, smallest);
        if (then < best) best = then;
      }
    }
    table[at] = best;
    return best;
  }

  return (box, month) => {
    if (isTooLarge) return 0;
    const free = measure.places(bays) - measure.places(box.drives);
    let smallest = Infinity;
    for (const shape of box.groups) for (const kind of shape.kinds) smallest = Math.min(smallest, countsOf(kind, edges));
    const units = Math.ceil(measure.of(box) / unit - 1e-9);
    return least(month, units, free, Math.min(smallests - 1, Math.floor(smallest / unit + 1e-9)));
  };
}

/** Later months at which a pool of one band is looked at besides the one in which it is full. */
const MARKS = 4;

/**
 * A bound for one band, where every drive counts as the smallest: so many drives, all at least so large, are wanted now
 * and more or larger ones later; a drive that is bought now may serve both.
 */
function byStages(instance: Instance, boxes: Boxes, parity: number, copies: number): Bound {
  const { months, needs, sold, rules } = instance;
  const lengths = sold.map(({ bytes }) => boxes.kindOf(bytes, Infinity).length);
  const widest = Math.min(instance.bays, rules.mostDrives ?? Infinity);
  // The cheapest drive of at least each size, by month.
  const cheapest = Array.from({ length: months }, (_, month) => {
    const list = new Float64Array(sold.length + 1).fill(Infinity);
    for (let i = sold.length - 1; i >= 0; i -= 1)
      list[i] = Math.min(list[i + 1] as number, sold[i]?.cents[month] as number);
    return list;
  });
  const firstOf = (least: Bytes): number => {
    let i = 0;
    while (i < lengths.length && (lengths[i] as number) < least) i += 1;
    return i;
  };
  const leastFor = (need: Bytes, drives: number): Bytes => (need * copies) / (drives - parity) - 1;
  const countFrom = (kinds: readonly Kind[], least: Bytes): number => {
    let count = 0;
    for (const { length } of kinds) if (length >= least) count += 1;
    return count;
  };
  const price = (first: number, month: number): number => (cheapest[month] as Float64Array)[first] as number;

  /** What is spent now and at a later month, at least. */
  function both(kinds: readonly Kind[], month: number, later: number): number {
    let best = Infinity;
    for (let now = Math.max(kinds.length, parity + 1); now <= widest; now += 1) {
      const least = leastFor(needs[month] as number, now);
      const lacks = Math.max(0, now - countFrom(kinds, least));
      const [small, first] = [price(firstOf(least), month), firstOf(least)];
      if (lacks > 0 && small === Infinity) continue;
      for (let then = now; then <= widest; then += 1) {
        const more = leastFor(needs[later] as number, then);
        const lacksThen = Math.max(0, then - countFrom(kinds, more));
        const large = firstOf(Math.max(least, more));
        const serving = price(Math.max(first, large), month);
        const late = lacksThen > 0 ? price(firstOf(more), later) : 0;
        const shared = Math.min(lacks, lacksThen);
        const apart = (lacks > 0 ? lacks * small : 0) + (lacksThen > 0 ? lacksThen * late : 0);
        const together =
          shared === 0
            ? Infinity
            : (lacks > shared ? (lacks - shared) * small : 0) +
              shared * serving +
              (lacksThen > shared ? (lacksThen - shared) * late : 0);
        best = Math.min(best, apart, together);
      }
    }
    return best;
  }

  return (box, month) => {
    const [shape] = box.groups;
    if (box.groups.length !== 1 || !shape || month >= months) return 0;
    let bound = 0;
    for (let mark = 1; mark <= MARKS; mark += 1) {
      const later = Math.min(months - 1, month + Math.ceil(((months - 1 - month) * mark) / MARKS));
      bound = Math.max(bound, both(shape.kinds, month, later));
    }
    return bound === Infinity ? 0x3fffffff : bound;
  };
}

/** The best share of its drives' bytes that a layout holds, with so many drives at most. */
function bestShare(layout: Layout, drives: number): number {
  const { data, copies, parity } = layout.stripe({});
  if (copies === "all") return 1 / 2;
  if (data !== "rest") return data / (data + parity);
  return copies > 1 ? 1 / copies : layout.dedicatedParity ? 1 : (drives - parity) / drives;
}

/** The layouts that a group may have by the end. */
export function layoutsOf({ groups, layouts }: Pick<Instance, "groups" | "layouts">): Layout[] {
  const ids = new Set<LayoutId>([...layouts, ...groups.map(({ group }) => group.layout)]);
  return [...ids].map(layoutOf);
}

/** Whether the pool stays one group, whose drives all count as the smallest. */
export const isOneBand = (instance: Instance): boolean =>
  instance.groups.length <= 1 &&
  instance.rules.widening !== "further-group" &&
  layoutsOf(instance).every((layout) => layout.countsSmallest && layout.stripe({}).copies !== "all");

/** The largest of the bounds that hold for an instance. */
export function boundOf(instance: Instance, boxes: Boxes): Bound {
  const layouts = layoutsOf(instance);
  const bounds: Bound[] = [];
  const each = { places: (drives: number) => drives, drivesEach: 1 };
  const sum = (box: BoxThen) =>
    box.groups.reduce((all, { kinds }) => all + kinds.reduce((total, { length }) => total + length, 0), 0);
  const share = Math.max(...layouts.map((layout) => bestShare(layout, instance.bays)));
  bounds.push(byLack(instance, boxes, { ...each, of: sum, wanted: (need) => need / share }));
  const usable = (box: BoxThen) => box.groups.reduce((all, { most }) => all + most, 0);
  if (layouts.every(({ cutsAtSizes }) => cutsAtSizes) && instance.groups.length <= 1)
    bounds.push(byLack(instance, boxes, { ...each, of: usable, wanted: (need) => need }));
  if (instance.equalPairs)
    bounds.push(
      byLack(instance, boxes, {
        of: usable,
        wanted: (need) => need,
        places: (drives) => Math.floor(drives / 2),
        drivesEach: 2,
      }),
    );
  const stripes = layouts.map((layout) => layout.stripe({}));
  if (isOneBand(instance)) {
    const copies = Math.min(...stripes.map((stripe) => (stripe.copies === "all" ? 1 : stripe.copies)));
    bounds.push(byStages(instance, boxes, Math.min(...stripes.map(({ parity }) => parity)), copies));
  }
  const known = new Map<number, number>();
  return (box, month) => {
    const key = box.index * 1024 + month;
    const old = known.get(key);
    if (old !== undefined) return old;
    let best = 0;
    for (const bound of bounds) best = Math.max(best, bound(box, month));
    known.set(key, best);
    return best;
  };
}
