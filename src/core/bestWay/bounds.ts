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

/** More than anything costs, in cents: there is no way. */
const NEVER = 0x3fffffff;

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
    let best = NEVER;
    for (let i = 0; i < gains.length; i += 1) {
      const price = (sold[i]?.cents[month] as number) * measure.drivesEach;
      if (price >= best) continue;
      const gain = gains[i] as number;
      if (free > 0) {
        const then =
          price + (running[month] as number) + least(month, units + gain, free - 1, Math.min(smallest, gain));
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
    for (const shape of box.groups)
      for (const kind of shape.kinds) smallest = Math.min(smallest, countsOf(kind, edges));
    const units = Math.ceil(measure.of(box) / unit - 1e-9);
    return least(month, units, free, Math.min(smallests - 1, Math.floor(smallest / unit + 1e-9)));
  };
}

/** At which share of the time that is left a pool of one band is looked at besides the beginning and the end. */
const BETWEEN = [0.3, 0.55, 0.8];

/** What a pool of one band wants at a time, with so many drives: the least size, and the first that is sold. */
interface Wanted {
  least: Bytes;
  first: number;
}

/**
 * A bound for one band, where every drive counts as the smallest: so many drives, all at least so large, are wanted now,
 * more or larger ones later, and again at the end. Each that is lacking at the end is bought then, or was bought
 * earlier and as large; each that was lacking before as well is bought once for all that time, or again in between.
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
  const wanted = Array.from({ length: months }, (_, month) =>
    Array.from({ length: widest + 1 }, (__, drives): Wanted => {
      const least = drives > parity ? ((needs[month] as number) * copies) / (drives - parity) - 1 : Infinity;
      const first = lengths.findIndex((length) => length >= least);
      return { least, first: first < 0 ? sold.length : first };
    }),
  );
  const price = (first: number, month: number): number => (cheapest[month] as Float64Array)[first] as number;
  // Nothing times a price without end is nothing.
  const times = (count: number, cents: number): number => (count > 0 ? count * cents : 0);

  /** How many of so many drives are lacking that are as large as is wanted. */
  function lackingOf(kinds: readonly Kind[], month: number): Int32Array {
    const lacking = new Int32Array(widest + 1);
    for (let drives = parity + 1; drives <= widest; drives += 1) {
      const { least } = wanted[month]?.[drives] as Wanted;
      let there = 0;
      for (const { length } of kinds) if (length >= least) there += 1;
      lacking[drives] = Math.max(0, drives - there);
    }
    return lacking;
  }

  /** What is spent now, at a month between and at the last, at least. */
  function threeStages(kinds: readonly Kind[], now: number, between: number, last: number): number {
    let best = Infinity;
    const [lackNow, lackThen, lackLast] = [now, between, last].map((month) => lackingOf(kinds, month)) as [
      Int32Array,
      Int32Array,
      Int32Array,
    ];
    for (let one = Math.max(kinds.length, parity + 1); one <= widest; one += 1) {
      const small = (wanted[now]?.[one] as Wanted).first;
      const atOnce = times(lackNow[one] as number, price(small, now));
      if (atOnce >= best) continue;
      for (let two = one; two <= widest; two += 1) {
        const middle = (wanted[between]?.[two] as Wanted).first;
        for (let three = two; three <= widest; three += 1) {
          const large = (wanted[last]?.[three] as Wanted).first;
          const third = lackLast[three] as number;
          const second = Math.min(lackThen[two] as number, third);
          const first = Math.min(lackNow[one] as number, second);
          const end = price(large, last);
          const fromThen = Math.min(price(Math.max(middle, large), between), price(middle, between) + end);
          const fromNow = Math.min(
            price(Math.max(small, middle, large), now),
            price(small, now) + fromThen,
            price(Math.max(small, middle), now) + end,
          );
          const all = times(first, fromNow) + times(second - first, fromThen) + times(third - second, end);
          best = Math.min(best, Math.max(all, atOnce));
        }
      }
    }
    return best;
  }

  return (box, month) => {
    const [shape] = box.groups;
    if (box.groups.length !== 1 || !shape || month >= months) return 0;
    const last = months - 1;
    let bound = 0;
    for (const share of BETWEEN)
      bound = Math.max(bound, threeStages(shape.kinds, month, month + Math.round((last - month) * share), last));
    return Math.min(bound, NEVER);
  };
}

/** The best share of its drives' bytes that a layout holds, with so many drives at most. */
function bestShare(layout: Layout, drives: number): number {
  const { data, copies, parity } = layout.stripe({});
  if (copies === "all") return 1 / 2;
  if (data !== "rest") return data / (data * copies + parity);
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
