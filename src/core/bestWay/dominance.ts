import { rulesForJoining } from "../layouts/joins";
import type { BoxRules } from "../document/plan";
import { hoursToFill } from "./acts";
import { endOfKept } from "../layouts/keptArrays";
import type { BoxThen, Shape } from "./boxes";
import type { Instance } from "./instance";

/** By what a box can be held against others: only those of one class, each drive against the other's. */
export interface Rank {
  class: string;
  /** The sizes of the drives, groups one after the other, then the months by which they must go. */
  values: Float64Array;
  /** For how long each drive leaves data exposed when it is changed, in the order of the sizes. */
  hours: Float64Array;
  /** Of the values, months without end left out: none is at least another whose sum is larger. */
  sum: number;
}

/** The values of groups; months only where drives are ever due. */
export function valuesOf(groups: readonly Shape[], withDue: boolean, rules: BoxRules): Omit<Rank, "class"> {
  const kinds = groups.flatMap((shape) => shape.kinds);
  const sizes = kinds.map(({ bytes }) => bytes);
  const values = Float64Array.from(withDue ? [...sizes, ...kinds.map(({ due }) => due)] : sizes);
  const hours = Float64Array.from(kinds, (kind) => hoursToFill(kind, rules));
  return { values, hours, sum: sizes.reduce((sum, bytes) => sum + bytes, 0) };
}

/** Whether any drive must ever go. */
export const isEverDue = ({ life, groups }: Pick<Instance, "life" | "groups">): boolean =>
  life < Infinity || groups.some(({ drives }) => drives.some(({ due }) => due < Infinity));

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
  const withDue = isEverDue(instance);
  const make = (box: BoxThen): Rank | null => {
    const isFull = box.drives >= bays;
    const groups = inOrder(box.groups);
    const layouts = groups.map(({ layout, kinds }) => `${layout.id} ${kinds.length}`).join();
    const values = valuesOf(groups, withDue, rules);
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
export function isAtLeast(one: Float64Array, other: Float64Array): boolean {
  for (let i = 0; i < one.length; i += 1) if ((one[i] as number) < (other[i] as number)) return false;
  return true;
}

/** How much longer than another box one leaves data exposed at most, if all that is done in the other is done in it. */
export function longerExposed(one: Float64Array, other: Float64Array): number {
  let hours = 0;
  for (let i = 0; i < one.length; i += 1) hours += Math.max(0, (one[i] as number) - (other[i] as number));
  return hours;
}
