import { actsOf } from "./acts";
import { boundOf } from "./bounds";
import { type Boxes, boxesOf } from "./boxes";
import { isAtLeast, ranked } from "./dominance";
import type { Instance } from "./instance";
import { beginning, cheapestWay, following, type Label, LeastFirst, type SoFar, wayOf } from "./search";

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

/** Ways that stand in one month, each held against the others there. */
function standing(instance: Instance, boxes: Boxes) {
  const rankOf = ranked(instance, boxes.stepwise);
  const months = new Map<string, { saving: Saving; values: Float64Array }[]>();
  const none = new Float64Array(0);
  return (saving: Saving): boolean => {
    const rank = rankOf(saving.label.box);
    const name = `${saving.month} ${rank ? rank.class : `#${saving.label.box.index}`}`;
    const values = rank?.values ?? none;
    const list = months.get(name) ?? [];
    const covers = (one: { saving: Saving; values: Float64Array }, other: { saving: Saving; values: Float64Array }) =>
      one.saving.label.cents <= other.saving.label.cents &&
      one.saving.spent <= other.saving.spent &&
      isAtLeast(one.values, other.values);
    const held = { saving, values };
    if (list.some((other) => covers(other, held))) return false;
    for (const other of list) other.saving.isOver ||= covers(held, other);
    months.set(name, [...list.filter((other) => !other.saving.isOver), held]);
    return true;
  };
}

/** After so many ways that were followed it says how far it is. */
const TELL_EVERY = 400;

/**
 * The cheapest way that spends no more than so much in any year of twelve months. Where the cheapest way of all fits,
 * it is that. Else it can be right to buy ahead, with what a year has left: each year's last month is a moment of
 * choice as well as those in which the box no longer suffices.
 *
 * @param perYear in cents
 * @param year how many months a year has
 * @yields how far it is
 */
export function* withinBudget(
  instance: Instance,
  perYear: number,
  boxes: Boxes = boxesOf(instance),
  year = YEAR,
): Generator<SoFar, SoFar> {
  const yearOf = (month: number): number => Math.floor(month / year);
  const free = yield* cheapestWay(instance, boxes);
  if (!free.best || spentByYear(free.best, instance.months, year).every((cents) => cents <= perYear)) return free;
  const acts = actsOf(instance, boxes);
  const bound = boundOf(instance, boxes);
  const takes = standing(instance, boxes);
  const queue = new LeastFirst<Saving>();
  let best: Label | null = null;
  const put = (label: Label, month: number, spent: number) => {
    const next = Math.min(label.box.until, instance.months);
    if (next >= instance.months) {
      if (!best || label.cents < best.cents) best = label;
      return;
    }
    const key = label.cents + bound(label.box, Math.max(month, next));
    if (best && key >= best.cents) return;
    const saving: Saving = { label, month, spent, isOver: false };
    if (takes(saving)) queue.put(saving, key);
  };
  const soFar = (): SoFar => ({
    best,
    least: Math.max(free.least, Math.min(queue.least(), best?.cents ?? Infinity)),
    boxes: boxes.count(),
  });
  const start = beginning(boxes);
  put(start, Math.min(start.month, year - 1), 0);
  for (let followed = 1; queue.size > 0; followed += 1) {
    const saving = queue.take();
    if (!saving || saving.isOver) continue;
    const { label, month, spent } = saving;
    if (best && label.cents + bound(label.box, Math.max(month, label.box.until)) >= (best as Label).cents) continue;
    for (const move of acts(label.box, month)) {
      if (spent + move.cents > perYear) continue;
      const then = { ...following(label, move), month };
      // The act is done where the way stands, which may be before the box is full.
      put({ ...then, by: { from: { ...label, month }, act: move.act, cents: move.cents } }, month, spent + move.cents);
    }
    const { until } = label.box;
    if (until > month) {
      const lastOfYear = (yearOf(month + 1) + 1) * year - 1;
      const next = Math.min(until, lastOfYear);
      put({ ...label }, next, yearOf(next) === yearOf(month) ? spent : 0);
    }
    if (followed % TELL_EVERY === 0) yield soFar();
  }
  const { boxes: count } = soFar();
  return { best, least: best ? (best as Label).cents : Infinity, boxes: count };
}
