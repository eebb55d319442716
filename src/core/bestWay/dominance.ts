import { rulesForJoining } from "../layouts/joins";
import { endOfKept } from "../layouts/keptArrays";
import type { BoxThen, Shape } from "./boxes";
import { mostExposed, slowestOf } from "./exposure";
import type { Instance } from "./instance";

/** By what a box can be held against others: only those of one class, each drive against the other's. */
export interface Rank {
  class: string;
  /** The sizes of the drives, groups one after the other, then the months by which they must go. */
  values: readonly number[];
  /** For how long each drive leaves data exposed at most when it is changed, in the order of the sizes. */
  hours: () => readonly number[];
  /** Whether that depends on the smallest of them for each. */
  isOneBand: boolean;
  /** Of the values, months without end left out: none is at least another whose sum is larger. */
  sum: number;
}

/** Whether any drive must ever go. */
export const isEverDue = ({ life, groups }: Pick<Instance, "life" | "groups">): boolean =>
  life < Infinity || groups.some(({ drives }) => drives.some(({ due }) => due < Infinity));

/** Gives the values of groups: what is held against others; months only where drives are ever due. */
export function valuesIn(instance: Instance): (groups: readonly Shape[]) => Omit<Rank, "class"> {
  const withDue = isEverDue(instance);
  const slowest = slowestOf(instance);
  return (groups) => {
    const kinds = groups.flatMap((shape) => shape.kinds);
    const sizes = kinds.map(({ bytes }) => bytes);
    let hours: readonly number[] | null = null;
    return {
      values: withDue ? [...sizes, ...kinds.map(({ due }) => due)] : sizes,
      // Seldom asked for, of very many boxes.
      hours: () => (hours ??= kinds.map((kind) => mostExposed(kind, slowest, instance.rules))),
      isOneBand: groups.some(({ layout, tolerance }) => layout.countsSmallest && tolerance === 1),
      sum: sizes.reduce((sum, bytes) => sum + bytes, 0),
    };
  };
}

/** Larger groups after smaller ones, so that like is held against like. */
const inOrder = (groups: readonly Shape[]): readonly Shape[] =>
  groups.length < 2 ? groups : [...groups].sort((a, b) => a.most - b.most || a.index - b.index);

/**
 * By what a box can be held against others: whatever can be done in a box can be done in one of its class whose drives
 * are all as large and go no sooner, and leaves it no worse. Null where only the very same box compares: where drives
 * must be as large as the smallest to join, a smaller smallest is worth something as long as bays are free.
 */
export function ranked(instance: Instance, stepwise = false): (box: BoxThen) => Rank | null {
  const { bays, rules } = instance;
  const known: (Rank | null)[] = [];
  const valuesOf = valuesIn(instance);
  const make = (box: BoxThen): Rank | null => {
    const isFull = box.drives >= bays;
    const groups = inOrder(box.groups);
    const layouts = groups.map(({ layout, kinds }) => `${layout.id} ${kinds.length}`).join();
    const values = valuesOf(groups);
    const [shape] = groups;
    // A group more needs no drive to fit another; within a group that is wide already nothing joins.
    const joins = groups.length === 1 && shape && (shape.layout.cutsAtSizes || shape.layout.countsSmallest);
    if (stepwise && shape?.layout.cutsAtSizes) return standing(shape, values, instance);
    if (isFull || !shape || !joins || shape.layout.stripe({}).copies === "all") return { class: layouts, ...values };
    const { joining } = rulesForJoining(shape.layout, rules);
    if (shape.layout.countsSmallest || joining === "as-smallest-member") return null;
    if (joining !== "as-largest-member") return { class: layouts, ...values };
    return { class: `${layouts} ${shape.kinds.at(-1)?.bytes}`, ...values };
  };
  return (box) => {
    const old = known[box.index];
    return old === undefined ? (known[box.index] = make(box)) : old;
  };
}

/**
 * The same for a hybrid whose bands stay as they were cut: those of one class are cut at the same heights, and have the
 * same drives above them, so that the next bands will be cut alike.
 */
function standing(
  { layout, kinds, kept = [] }: Shape,
  values: Omit<Rank, "class">,
  { rules, bays }: Instance,
): Rank | null {
  const { joining } = rulesForJoining(layout, rules);
  if (kinds.length < bays && joining === "as-smallest-member") return null;
  const top = kept.reduce((most, each) => Math.max(most, endOfKept(each)), 0);
  const above = kinds.flatMap(({ bytes, length }) => (length > top ? [bytes] : []));
  const heights = kept.map(endOfKept).join();
  return { class: `${layout.id} ${kinds.length} ${heights} ${above.join()} ${kinds.at(-1)?.bytes}`, ...values };
}

/** Whether one box is at least the other, drive by drive, of those of one class. */
export function isAtLeast(one: readonly number[], other: readonly number[]): boolean {
  for (let i = 0; i < one.length; i += 1) if ((one[i] as number) < (other[i] as number)) return false;
  return true;
}

/**
 * How much longer than another box one leaves data exposed at most, if all that is done in the other is done in it. In
 * one band each drive is filled as far as the smallest: as long as nothing is known of how many will be changed, only
 * like drives compare.
 */
export function longerExposed(one: Omit<Rank, "class">, other: Omit<Rank, "class">): number {
  const [own, others] = [one.hours(), other.hours()];
  let hours = 0;
  for (let i = 0; i < own.length; i += 1) hours += Math.max(0, (own[i] as number) - (others[i] as number));
  return one.isOneBand && hours > 0 ? Infinity : hours;
}
