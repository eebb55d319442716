import { type Act, actsOf, type Move } from "./acts";
import { boundOf, layoutsOf } from "./bounds";
import { type Boxes, boxesOf, type BoxThen } from "./boxes";
import { isAtLeast, ranked } from "./dominance";
import type { Instance } from "./instance";

/** A way up to some point: the box then, until when it suffices, and what has been spent. */
export interface Label {
  box: BoxThen;
  month: number;
  cents: number;
  hours: number;
  acts: number;
  by: { from: Label; act: Act; cents: number } | null;
  /** One that is no better has been found: it is not followed. */
  isOver: boolean;
}

/** How far a search is. */
export interface SoFar {
  /** The best way that has been found. */
  best: Label | null;
  /** No way costs less than this, in cents. */
  least: number;
  /** How many boxes have been come across. */
  boxes: number;
}

/** An act of a way, in the month in which it is done. */
export interface WayAct {
  month: number;
  act: Act;
  cents: number;
  box: BoxThen;
}

/** The acts of a way in their order. */
export function wayOf(label: Label): WayAct[] {
  const acts: WayAct[] = [];
  for (let at: Label = label; at.by; at = at.by.from)
    acts.push({ month: at.by.from.month, act: at.by.act, cents: at.by.cents, box: at.box });
  return acts.reverse();
}

export const beginning = ({ start }: Boxes): Label => ({
  box: start,
  month: start.until,
  cents: 0,
  hours: 0,
  acts: 0,
  by: null,
  isOver: false,
});

/** A way with one more act: it waits until the box no longer suffices. */
export const following = (label: Label, { act, box, cents, hours }: Move): Label => ({
  box,
  month: Math.max(label.month, box.until),
  cents: label.cents + cents,
  hours: label.hours + hours,
  acts: label.acts + 1,
  by: { from: label, act, cents },
  isOver: false,
});

/** So many ways are followed in each month to find a first one. */
const BEAM = 60;
const WIDE_BEAM = 16;

/** No plan takes more acts at once. */
const MOST_AT_ONCE = 30;

/**
 * A first way that holds all along, not proved to be the best: in each month only the most promising are followed.
 *
 * @param bound the least that must still be spent
 */
export function firstWay(
  instance: Instance,
  boxes: Boxes,
  acts: (box: BoxThen, month: number) => Move[],
  bound: (box: BoxThen, month: number) => number,
  width: number = boxes.start.groups.length === 1 && boxes.start.groups[0]?.layout.countsSmallest ? WIDE_BEAM : BEAM,
): Label | null {
  const waiting = new Map<number, Map<number, Label>>();
  const put = (label: Label) => {
    const list = waiting.get(label.month) ?? new Map<number, Label>();
    const old = list.get(label.box.index);
    if (!old || label.cents < old.cents) list.set(label.box.index, label);
    waiting.set(label.month, list);
  };
  const worth = (label: Label) => label.cents + bound(label.box, label.month);
  const best = (labels: Iterable<Label>) =>
    [...labels]
      .map((label) => ({ label, worth: worth(label) }))
      .sort((a, b) => a.worth - b.worth || b.label.box.until - a.label.box.until)
      .slice(0, width)
      .map(({ label }) => label);
  put(beginning(boxes));
  for (let month = 0; month < instance.months; month += 1) {
    let now = best(waiting.get(month)?.values() ?? []);
    waiting.delete(month);
    for (let depth = 0; depth < MOST_AT_ONCE && now.length > 0; depth += 1) {
      const next = new Map<number, Label>();
      for (const label of now)
        for (const move of acts(label.box, month)) {
          const then = following(label, move);
          if (then.month > month) put(then);
          else if (then.cents < (next.get(then.box.index)?.cents ?? Infinity)) next.set(then.box.index, then);
        }
      now = best(next.values());
    }
  }
  const ends = [...(waiting.get(instance.months)?.values() ?? [])];
  return ends.reduce<Label | null>((least, each) => (least && least.cents <= each.cents ? least : each), null);
}

/** A queue that gives out the least first. */
export class LeastFirst<T = Label> {
  private readonly labels: T[] = [];
  private readonly keys: number[] = [];

  get size(): number {
    return this.labels.length;
  }

  least(): number {
    return this.keys[0] ?? Infinity;
  }

  put(label: T, key: number): void {
    const { labels, keys } = this;
    let at = labels.length;
    labels.push(label);
    keys.push(key);
    while (at > 0) {
      const up = (at - 1) >> 1;
      if ((keys[up] as number) <= key) break;
      labels[at] = labels[up] as T;
      keys[at] = keys[up] as number;
      at = up;
    }
    labels[at] = label;
    keys[at] = key;
  }

  take(): T | undefined {
    const { labels, keys } = this;
    const first = labels[0];
    const [label, key] = [labels.pop(), keys.pop() as number];
    if (label === undefined || labels.length === 0) return first;
    let at = 0;
    for (;;) {
      let down = at * 2 + 1;
      if (down >= labels.length) break;
      if (down + 1 < labels.length && (keys[down + 1] as number) < (keys[down] as number)) down += 1;
      if ((keys[down] as number) >= key) break;
      labels[at] = labels[down] as T;
      keys[at] = keys[down] as number;
      at = down;
    }
    labels[at] = label;
    keys[at] = key;
    return first;
  }
}

/** A way that was found, as it is held against others of its class. */
interface Held {
  label: Label;
  values: Float64Array;
  /** Of all values that are not infinite: what is at least another has at least its sum. */
  sum: number;
}

/** Ways that have been found, each held against those to which it compares. */
function found(instance: Instance, boxes: Boxes) {
  const rankOf = ranked(instance, boxes.stepwise);
  const same = new Map<number, Label>();
  const classes = new Map<string, Held[]>();
  const isNoWorse = (one: Label, other: Label) =>
    one.month >= other.month && (one.cents < other.cents || (one.cents === other.cents && one.hours <= other.hours));
  const covers = (one: Held, other: Held) =>
    one.sum >= other.sum && isNoWorse(one.label, other.label) && isAtLeast(one.values, other.values);

  function takesInClass(name: string, held: Held): boolean {
    const list = classes.get(name) ?? [];
    const { cents } = held.label;
    // By money: only cheaper ones can make it idle, and it only dearer ones.
    let at = 0;
    for (; at < list.length && (list[at] as Held).label.cents <= cents; at += 1)
      if (covers(list[at] as Held, held)) return false;
    let left = at;
    for (let i = at; i < list.length; i += 1) {
      const other = list[i] as Held;
      if (!other.label.isOver && covers(held, other)) other.label.isOver = true;
      if (!other.label.isOver) list[left++] = other;
    }
    list.length = left;
    list.splice(at, 0, held);
    classes.set(name, list);
    return true;
  }

  return {
    /** Whether a way is worth following; those that it makes idle are over. */
    takes(label: Label): boolean {
      const key = label.box.index * 1024 + label.month;
      const twin = same.get(key);
      if (twin && isNoWorse(twin, label)) return false;
      const rank = rankOf(label.box);
      if (rank && !takesInClass(rank.class, { label, values: rank.values, sum: rank.sum })) return false;
      if (twin) twin.isOver = true;
      same.set(key, label);
      return true;
    },
  };
}

/** Whether pools of mirrored pairs are looked through whose pairs may be of unequal drives. */
const hasFreePairs = (instance: Instance): boolean =>
  !instance.equalPairs && layoutsOf(instance).some((layout) => layout.stripe({}).copies === "all");

/** After so many ways that were followed it says how far it is. */
const TELL_EVERY = 400;

/**
 * The cheapest way, and of those the one with the fewest exposed hours: A* over the boxes that a pool can become. Since
 * prices never rise everything waits until it is wanted, so that only boxes that no longer suffice are followed.
 *
 * @yields how far it is, now and then; the caller may stop
 * @returns the best way, null where there is none
 * @example last(cheapestWay(guideExample)).best?.cents // 47 642
 */
export function* cheapestWay(instance: Instance, boxes: Boxes = boxesOf(instance)): Generator<SoFar, SoFar> {
  const acts = actsOf(instance, boxes);
  const bound = boundOf(instance, boxes);
  let best = firstWay(instance, boxes, acts, bound);
  if (hasFreePairs(instance)) {
    // Pairs of equal drives are quickly proved, and seldom dearer than any.
    const equal = yield* cheapestWay({ ...instance, equalPairs: true }, boxes);
    if (equal.best && (!best || equal.best.cents < best.cents)) best = equal.best;
  }
  const queue = new LeastFirst();
  const known = found(instance, boxes);
  const put = (label: Label) => {
    const key = label.cents + (label.month >= instance.months ? 0 : bound(label.box, label.month));
    if (best && (key > best.cents || (key === best.cents && label.hours >= best.hours))) return;
    if (label.month >= instance.months) best = label;
    else if (known.takes(label)) queue.put(label, key);
  };
  const soFar = (): SoFar => ({
    best,
    least: Math.min(queue.least(), best?.cents ?? Infinity),
    boxes: boxes.count(),
  });
  put(beginning(boxes));
  yield soFar();
  for (let followed = 0; queue.size > 0 && queue.least() <= (best?.cents ?? Infinity);) {
    const label = queue.take();
    if (!label || label.isOver) continue;
    for (const move of acts(label.box, label.month)) put(following(label, move));
    followed += 1;
    if (followed % TELL_EVERY === 0) yield soFar();
  }
  return { ...soFar(), least: best?.cents ?? Infinity };
}
