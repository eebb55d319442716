import { actsOf, type Move } from "./acts";
import { boundOf } from "./bounds";
import { type Boxes, boxesOf } from "./boxes";
import { isAtLeast, ranked } from "./dominance";
import type { Instance } from "./instance";
import { beginning, following, type Label, wayOf } from "./label";
import { LeastFirst } from "./queue";
import { cheapestWay } from "./search";
import type { SoFar } from "./soFar";
import { unbeaten } from "./unbeaten";

/** Months of a year. */
const YEAR = 12;

/** What a way spends in each year, in cents. */
export function spentByYear(label: Label, months: number, year = YEAR): number[] {
  const spent = Array.from({ length: Math.ceil(months / year) }, () => 0);
  for (const { month, cents } of wayOf(label)) {
    const at = Math.floor(month / year);
    spent[at] = (spent[at] ?? 0) + cents;
  }
  return spent;
}

/** A way up to a month, with what it has spent in that year. */
interface Saving {
  label: Label;
  /** The month in which it stands: it need not act there. */
  month: number;
  spent: number;
  isOver: boolean;
}

/** A way that stands in a month, as it is held against others there. */
interface Held {
  way: Saving;
  values: readonly number[];
}

/** Ways that stand in one month, each held against the others there; `few` where acts count. */
function standing(instance: Instance, boxes: Boxes, few: boolean) {
  const rankOf = ranked(instance, boxes.stepwise);
  const takesIn = unbeaten<Held>(
    (one, other) =>
      one.way.label.cents <= other.way.label.cents &&
      one.way.spent <= other.way.spent &&
      (!few || one.way.label.acts <= other.way.label.acts) &&
      isAtLeast(one.values, other.values),
  );
  return (way: Saving): boolean => {
    const rank = rankOf(way.label.box);
    const name = `${way.month} ${rank ? rank.class : `#${way.label.box.index}`}`;
    return takesIn(name, { way, values: rank?.values ?? [] });
  };
}

/** After so many ways that were followed it says how far it is. */
const TELL_EVERY = 50;

/** The cheapest way of all; while it is looked for, those that fit a budget are told of. */
function* ifItFits(instance: Instance, boxes: Boxes, fits: (label: Label) => boolean): Generator<SoFar, SoFar> {
  const steps = cheapestWay(instance, boxes);
  for (;;) {
    const { done, value } = steps.next();
    if (done) return value;
    yield { ...value, best: value.best && fits(value.best) ? value.best : null };
  }
}

/** What can be done next with what a year has left: an act where a way stands, or nothing until the next moment. */
function nextOf(
  { label, month, spent }: Saving,
  moves: readonly Move[],
  perYear: number,
  year: number,
): Omit<Saving, "isOver">[] {
  const yearOf = (each: number): number => Math.floor(each / year);
  // The act is done where the way stands, which may be before the box is full.
  const from = { ...label, month };
  const acts = moves
    .filter(({ cents }) => spent + cents <= perYear)
    .map((move) => {
      const by = { from, act: move.act, cents: move.cents };
      return { label: { ...following(label, move), month, by }, month, spent: spent + move.cents };
    });
  const { until } = label.box;
  if (until <= month) return acts;
  const next = Math.min(until, (yearOf(month + 1) + 1) * year - 1);
  return [...acts, { label: { ...label }, month: next, spent: yearOf(next) === yearOf(month) ? spent : 0 }];
}

/**
 * The cheapest way that spends no more than so much in any year of twelve months. Where the cheapest way of all fits,
 * it is that. Else it can be right to buy ahead, with what a year has left: each year's last month is a moment of
 * choice as well as those in which the box no longer suffices.
 *
 * @param perYear in cents
 * @param year how many months a year has
 * @param mostActs more acts than these it must not take
 * @yields how far it is
 */
export function* withinBudget(
  instance: Instance,
  perYear: number,
  boxes: Boxes = boxesOf(instance),
  year = YEAR,
  mostActs = Infinity,
): Generator<SoFar, SoFar> {
  const fits = (label: Label) =>
    label.acts <= mostActs && spentByYear(label, instance.months, year).every((cents) => cents <= perYear);
  const free = yield* ifItFits(instance, boxes, fits);
  if (!free.best || fits(free.best)) return free;
  const acts = actsOf(instance, boxes);
  const bound = boundOf(instance, boxes);
  const takes = standing(instance, boxes, mostActs < Infinity);
  const queue = new LeastFirst<Saving>();
  let best: Label | null = null;
  const keyOf = ({ label, month }: Omit<Saving, "isOver">): number =>
    label.box.until >= instance.months ? label.cents : label.cents + bound(label.box, Math.max(month, label.box.until));
  const put = (next: Omit<Saving, "isOver">) => {
    const key = keyOf(next);
    if (key === Infinity || next.label.acts > mostActs || (best && key >= best.cents)) return;
    const saving: Saving = { ...next, isOver: false };
    if (next.label.box.until >= instance.months) best = next.label;
    else if (takes(saving)) queue.put(saving, key);
  };
  const leastLeft = () => Math.max(free.least, Math.min(queue.least(), best?.cents ?? Infinity));
  const start = beginning(boxes);
  put({ label: start, month: Math.min(start.month, year - 1), spent: 0 });
  for (let followed = 1; queue.size > 0; followed += 1) {
    const saving = queue.take();
    if (!saving || saving.isOver || (best && keyOf(saving) >= (best as Label).cents)) continue;
    nextOf(saving, acts(saving.label.box, saving.month), perYear, year).forEach(put);
    if (followed % TELL_EVERY === 0) yield { best, least: leastLeft(), boxes: boxes.count() };
  }
  return { best, least: (best as Label | null)?.cents ?? Infinity, boxes: boxes.count() };
}
