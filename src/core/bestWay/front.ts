import { actsOf } from "./acts";
import { boundOf } from "./bounds";
import { type Boxes, boxesOf } from "./boxes";
import { isAtLeast, longerExposed, type Rank, ranked } from "./dominance";
import type { Aim, Instance } from "./instance";
import { beginning, following, type Label } from "./label";
import { LeastFirst } from "./queue";
import { unbeaten } from "./unbeaten";

/** What is weighed against money: exposed hours, or how many acts there are. */
export type Second = Exclude<Aim, "money">;

/** Ways of which none is beaten by another in both money and hours (or acts), the cheapest first. */
export interface FrontSoFar {
  ways: Label[];
  /** Whether these are all. */
  complete: boolean;
  boxes: number;
}

const of = (label: Label, second: Second): number => label[second];

/** Hours that differ by less are the same. */
const SAME = 1e-9;

interface Held extends Omit<Rank, "class"> {
  way: Label;
}

/** Ways so far of which none makes another idle. */
function takingIn(instance: Instance, boxes: Boxes, second: Second) {
  const rankOf = ranked(instance, boxes.stepwise);
  const none = [] as number[];
  const nothing = { values: none, hours: () => none, sum: 0, isOneBand: false };
  const covers = (one: Held, other: Held): boolean => {
    const [a, b] = [one.way, other.way];
    if (a.cents > b.cents || a.month < b.month || one.sum < other.sum || !isAtLeast(one.values, other.values))
      return false;
    const longer = second === "hours" ? longerExposed(one, other) : 0;
    return of(a, second) + longer <= of(b, second) + SAME;
  };
  const takesIn = unbeaten(covers);
  return (way: Label): boolean => {
    const rank = rankOf(way.box);
    return takesIn(rank ? rank.class : `#${way.box.index}`, { way, ...(rank ?? nothing) });
  };
}

/** After so many ways that were followed it says how far it is. */
const TELL_EVERY = 50;

/**
 * All ways of which none is better in money and in hours (or acts): the search for the cheapest way without its early
 * end.
 *
 * @yields those that were found so far
 * @returns them all, the cheapest first
 */
export function* frontSteps(
  instance: Instance,
  second: Second,
  boxes: Boxes = boxesOf(instance),
): Generator<FrontSoFar, FrontSoFar> {
  const acts = actsOf(instance, boxes, second === "hours");
  const bound = boundOf(instance, boxes);
  const queue = new LeastFirst<Label>();
  const takes = takingIn(instance, boxes, second);
  let ways: Label[] = [];
  const isBeaten = (cents: number, hours: number) =>
    ways.some((way) => way.cents <= cents && of(way, second) <= hours + SAME);
  const put = (label: Label) => {
    const ends = label.month >= instance.months;
    const key = label.cents + (ends ? 0 : bound(label.box, label.month));
    if (key === Infinity || isBeaten(key, of(label, second))) return;
    if (ends)
      ways = [
        ...ways.filter((way) => way.cents < label.cents || of(way, second) < of(label, second) - SAME),
        label,
      ].sort((a, b) => a.cents - b.cents);
    else if (takes(label)) queue.put(label, key);
  };
  put(beginning(boxes));
  for (let followed = 1; queue.size > 0; followed += 1) {
    const label = queue.take();
    if (!label || label.isOver) continue;
    const key = label.cents + bound(label.box, label.month);
    if (isBeaten(key, of(label, second))) continue;
    for (const move of acts(label.box, label.month)) put(following(label, move));
    if (followed % TELL_EVERY === 0) yield { ways, complete: false, boxes: boxes.count() };
  }
  return { ways, complete: true, boxes: boxes.count() };
}
