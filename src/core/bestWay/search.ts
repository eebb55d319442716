import { actsOf, type Move } from "./acts";
import { type Bound, boundOf, isOneBand, layoutsOf } from "./bounds";
import { type Boxes, boxesOf, type BoxThen } from "./boxes";
import { isAtLeast, ranked } from "./dominance";
import { HABITS, habitOf } from "./habits";
import type { Instance } from "./instance";
import { beginning, following, type Label } from "./label";
import { LeastFirst } from "./queue";
import { cheapestOfOneBand, staysOneBand } from "./oneBand";
import type { SoFar } from "./soFar";

/** So many ways are followed in each month to find a first one. */
const BEAM = 60;

/** The same in one band, where many acts are wanted until anything comes of them. */
const BEAM_OF_ONE_BAND = 16;

/** No plan takes more acts at once. */
const MOST_AT_ONCE = 30;

/** Ways that wait for a month, the cheapest to each box. */
class Waiting {
  private readonly months = new Map<number, Map<number, Label>>();

  put(label: Label): void {
    const list = this.months.get(label.month) ?? new Map<number, Label>();
    this.months.set(label.month, list);
    putCheaper(list, label);
  }

  take(month: number): Label[] {
    const list = [...(this.months.get(month)?.values() ?? [])];
    this.months.delete(month);
    return list;
  }
}

function putCheaper(list: Map<number, Label>, label: Label): void {
  const old = list.get(label.box.index);
  if (!old || label.cents < old.cents) list.set(label.box.index, label);
}

const cheapest = (labels: readonly Label[]): Label | null =>
  labels.reduce<Label | null>((least, each) => (least && least.cents <= each.cents ? least : each), null);

/**
 * A first way that holds all along, not proved to be the best: in each month only the most promising are followed.
 *
 * @param bound the least that must still be spent
 * @param known what was found before
 * @yields what was known before; the caller may stop
 */
export function* firstWay(
  instance: Instance,
  boxes: Boxes,
  acts: (box: BoxThen, month: number) => Move[],
  bound: Bound,
  known: SoFar,
): Generator<SoFar, Label | null> {
  const width = isOneBand(instance) ? BEAM_OF_ONE_BAND : BEAM;
  const best = (labels: readonly Label[]) =>
    labels
      .map((label) => ({ label, worth: label.cents + bound(label.box, label.month) }))
      .sort((a, b) => a.worth - b.worth || b.label.box.until - a.label.box.until)
      .slice(0, width)
      .map(({ label }) => label);
  const waiting = new Waiting();
  waiting.put(beginning(boxes));
  for (let month = 0; month < instance.months; month += 1) {
    let now = best(waiting.take(month));
    for (let depth = 0; depth < MOST_AT_ONCE && now.length > 0; depth += 1) {
      const next = new Map<number, Label>();
      for (const label of now)
        for (const move of acts(label.box, month)) {
          const then = following(label, move);
          if (bound(then.box, then.month) === Infinity) continue;
          if (then.month > month) waiting.put(then);
          else putCheaper(next, then);
        }
      now = best([...next.values()]);
      yield { ...known, boxes: boxes.count() };
    }
  }
  return cheapest(waiting.take(instance.months));
}

/** A way that was found, as it is held against others of its class. */
interface Held {
  label: Label;
  values: readonly number[];
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
const TELL_EVERY = 50;

/** Ways that are quickly found, for all others to be held against: habits, and pairs of equal drives. */
function* quickWays(instance: Instance, boxes: Boxes): Generator<SoFar, Label | null> {
  const habits = HABITS.flatMap((habit) => habitOf(instance, habit, boxes) ?? []);
  let best = cheapest(habits);
  yield { best, least: 0, boxes: boxes.count() };
  if (hasFreePairs(instance)) {
    // Pairs of equal drives are quickly proved, and seldom dearer than any; what they cost at least others may not.
    const steps = cheapestWay({ ...instance, equalPairs: true }, boxes);
    for (;;) {
      const { done, value } = steps.next();
      best = cheapest([best, value.best].flatMap((each) => each ?? []));
      if (done) break;
      yield { best, least: 0, boxes: boxes.count() };
    }
  }
  return best;
}

/** What is known before act is followed by act: quick ways, all of a pool of one band, a first way of the others. */
function* beforeActs(
  instance: Instance,
  boxes: Boxes,
  acts: (box: BoxThen, month: number) => Move[],
  bound: Bound,
): Generator<SoFar, SoFar> {
  const quick = yield* quickWays(instance, boxes);
  const least = bound(boxes.start, boxes.start.until);
  if (staysOneBand(instance)) return yield* cheapestOfOneBand(instance, boxes, bound, quick);
  const known = { best: quick, least, boxes: boxes.count() };
  // Pairs of equal drives are a first way that is good enough.
  if (quick && hasFreePairs(instance)) return known;
  const first = yield* firstWay(instance, boxes, acts, bound, known);
  return { ...known, best: cheapest([quick, first].flatMap((each) => each ?? [])) };
}

/** Whether nothing better is left to be found: as cheap a way can still leave data exposed less long. */
const isEnd = (instance: Instance, { best, least }: SoFar): boolean =>
  least >= (best?.cents ?? Infinity) && (!best || best.hours === 0 || staysOneBand(instance));

/**
 * The cheapest way, and of those the one with the fewest exposed hours: A* over the boxes that a pool can become. Since
 * prices never rise everything waits until it is wanted, so that only boxes that no longer suffice are followed.
 *
 * @yields how far it is, now and then; the caller may stop
 * @returns the best way, null where there is none
 * @example last(cheapestWay(workedExample)).best?.cents // 47 642
 */
export function* cheapestWay(instance: Instance, boxes: Boxes = boxesOf(instance)): Generator<SoFar, SoFar> {
  const acts = actsOf(instance, boxes);
  const bound = boundOf(instance, boxes);
  const before = yield* beforeActs(instance, boxes, acts, bound);
  if (isEnd(instance, before)) return before;
  let { best } = before;
  const queue = new LeastFirst<Label>();
  const known = found(instance, boxes);
  const isNoBetter = (key: number, hours: number) =>
    best !== null && (key > best.cents || (key === best.cents && hours >= best.hours));
  const put = (label: Label) => {
    const key = label.cents + (label.month >= instance.months ? 0 : bound(label.box, label.month));
    if (key === Infinity || isNoBetter(key, label.hours)) return;
    if (label.month >= instance.months) best = label;
    else if (known.takes(label)) queue.put(label, key);
  };
  const soFar = (): SoFar => ({
    best,
    least: Math.max(before.least, Math.min(queue.least(), best?.cents ?? Infinity)),
    boxes: boxes.count(),
  });
  put(beginning(boxes));
  yield soFar();
  for (let followed = 0; queue.size > 0;) {
    const least = queue.least();
    const label = queue.take();
    if (!label || label.isOver || isNoBetter(least, label.hours)) continue;
    followed += 1;
    for (const move of acts(label.box, label.month)) put(following(label, move));
    if (followed % TELL_EVERY === 0) yield soFar();
  }
  return { best, least: best?.cents ?? Infinity, boxes: boxes.count() };
}
