import type { Bytes } from "../bytes/bytes";
import type { LayoutId } from "../document/plan";
import type { Layout } from "../layouts/layout";
import { layoutOf } from "../layouts/registry";
import { type Boxes, type BoxThen, edgesOf, type Kind } from "./boxes";
import { driveByDrive } from "./driveByDrive";
import type { Instance } from "./instance";

/** The least that must still be spent from a month on, in cents: never more than any way costs; Infinity for no way. */
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
  /**
   * Which of the largest drives, counted from 1, says how much of a still larger one can count at once: the last of
   * those that hold nothing; 0 where all of each counts.
   */
  capped: number;
}

/** How finely a table counts. */
const UNITS = 320;

const UNKNOWN = -1;

/** More than anything costs, in cents: there is no way. */
const NEVER = 0x3fffffff;

/** What counts of a drive in a hybrid: as far as it reaches a height at which the group is cut already. */
function countsOf({ length }: Kind, edges: readonly Bytes[]): Bytes {
  const top = edges.at(-1) ?? 0;
  return length >= top ? length : (edges.findLast((edge) => edge <= length) ?? 0);
}

/** What a table of what is lacking counts with, all in its units. */
interface Lack {
  /** By month. */
  wanted: Int32Array;
  /** What each size brings, and what counts of it where it is the smallest. */
  gains: readonly number[];
  levels: readonly number[];
  /** The place of each size among the levels. */
  levelOf: readonly number[];
  /** What can count at once of a drive that is larger, by the size that says so; the last where all counts. */
  caps: readonly number[];
  /** The place of each size among the caps. */
  capOf: readonly number[];
  /** What it costs, by size and month. */
  price: (size: number, month: number) => number;
  running: Int32Array;
}

/** The least that must be spent to bring up what is lacking, looked up once for each state. */
function leastFor({ wanted, gains, levels, levelOf, caps, capOf, price, running }: Lack, slots: number) {
  const months = wanted.length;
  const goal = (wanted[months - 1] as number) + 1;
  // Few of all states are come across: a table is made with the first of its own.
  const tables = new Array<Int32Array | undefined>(months * levels.length * caps.length * slots).fill(undefined);
  // The month in which so much is too little.
  const lacking = new Int32Array(goal);
  for (let units = 0, month = 0; units < goal; units += 1) {
    while (month < months && (wanted[month] as number) <= units) month += 1;
    lacking[units] = month;
  }

  function least(from: number, units: number, free: number, level: number, cap: number): number {
    if (units >= goal) return 0;
    const month = Math.max(from, lacking[units] as number);
    if (month >= months) return 0;
    const which = ((month * levels.length + level) * caps.length + cap) * slots + free;
    const table = (tables[which] ??= new Int32Array(goal).fill(UNKNOWN));
    const known = table[units] as number;
    if (known !== UNKNOWN) return known;
    const smallest = levels[level] as number;
    let best = NEVER;
    for (let i = 0; i < gains.length; i += 1) {
      const cents = price(i, month);
      if (cents >= best) continue;
      const gain = Math.min(gains[i] as number, caps[cap] as number);
      const then = Math.max(cap, capOf[i] as number);
      if (free > 0) {
        const left = least(month, units + gain, free - 1, Math.min(level, levelOf[i] as number), then);
        best = Math.min(best, cents + (running[month] as number) + left);
      }
      const more = gain - smallest;
      if (more > 0 || then > cap)
        best = Math.min(best, cents + least(month, units + Math.max(0, more), free, level, then));
    }
    table[units] = best;
    return best;
  }

  return least;
}

/**
 * A bound by what is lacking in all: what a box has is brought up, a drive at a time, in a free bay or in the place of
 * the smallest. Adding a drive can make the smallest smaller: then replacing it brings more. Of a drive that is larger
 * than those that hold nothing only as much counts as the last of them has; from then on it may be the one that says
 * so.
 */
function byLack(instance: Instance, boxes: Boxes, measure: Measure): Bound {
  const { months, needs, sold, bays } = instance;
  const edges = edgesOf(instance);
  const unit = Math.max(1, measure.wanted(needs[months - 1] as number) / UNITS);
  const floored = (kind: Kind): number => Math.floor(countsOf(kind, edges) / unit + 1e-9);
  const kinds = sold.map(({ bytes }) => boxes.kindOf(bytes, Infinity));
  const owned = boxes.start.groups.flatMap((shape) => shape.kinds);
  const levels = [...new Set([...kinds, ...owned].map(floored))].sort((a, b) => a - b);
  // What cannot be capped has one cap, above all sizes.
  const lengths = [...new Set([...kinds, ...owned].map(({ length }) => Math.ceil(length / unit - 1e-9)))];
  const caps = measure.capped > 0 ? [0, ...lengths].sort((a, b) => a - b) : [Infinity];
  const capOf = ({ length }: Kind): number =>
    measure.capped > 0 ? caps.lastIndexOf(Math.ceil(length / unit - 1e-9)) : 0;
  const capIn = (box: BoxThen): number => {
    if (measure.capped === 0) return 0;
    const last = box.groups[0]?.kinds.at(-measure.capped);
    return last ? capOf(last) : 0;
  };
  const least = leastFor(
    {
      wanted: Int32Array.from(needs, (need) => Math.floor(measure.wanted(need) / unit + 1e-9)),
      gains: kinds.map(({ length }) => Math.ceil(length / unit - 1e-9)),
      levels,
      levelOf: kinds.map((kind) => levels.indexOf(floored(kind))),
      caps,
      capOf: kinds.map(capOf),
      price: (size, month) => (sold[size]?.cents[month] as number) * measure.drivesEach,
      running: Int32Array.from(needs, (_, month) =>
        Math.round((instance.centsPerDriveYear * measure.drivesEach * (months - month)) / 12),
      ),
    },
    measure.places(bays) + 1,
  );
  return (box, month) => {
    let level = levels.length - 1;
    for (const shape of box.groups)
      for (const kind of shape.kinds) level = Math.min(level, levels.indexOf(floored(kind)));
    const units = Math.ceil(measure.of(box) / unit - 1e-9);
    return least(month, units, measure.places(bays) - measure.places(box.drives), level, capIn(box));
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
  const each = { places: (drives: number) => drives, drivesEach: 1, capped: 0 };
  const sum = (box: BoxThen) =>
    box.groups.reduce((all, { kinds }) => all + kinds.reduce((total, { length }) => total + length, 0), 0);
  const share = Math.max(...layouts.map((layout) => bestShare(layout, instance.bays)));
  bounds.push(byLack(instance, boxes, { ...each, of: sum, wanted: (need) => need / share }));
  const usable = (box: BoxThen) => box.groups.reduce((all, { most }) => all + most, 0);
  if (layouts.every(({ cutsAtSizes }) => cutsAtSizes) && instance.groups.length <= 1)
    bounds.push(
      byLack(instance, boxes, {
        ...each,
        of: usable,
        wanted: (need) => need,
        capped: Math.min(...layouts.map((layout) => layout.stripe({}).parity)),
      }),
    );
  if (instance.equalPairs)
    bounds.push(
      byLack(instance, boxes, {
        of: usable,
        wanted: (need) => need,
        places: (drives) => Math.floor(drives / 2),
        drivesEach: 2,
        capped: 0,
      }),
    );
  if (isOneBand(instance)) bounds.push(driveByDrive(instance, boxes, layouts));
  const known = new Map<number, number>();
  return (box, month) => {
    const key = box.index * 1024 + month;
    const old = known.get(key);
    if (old !== undefined) return old;
    let best = 0;
    for (const bound of bounds) best = Math.max(best, bound(box, month));
    if (best >= NEVER) best = Infinity;
    known.set(key, best);
    return best;
  };
}
