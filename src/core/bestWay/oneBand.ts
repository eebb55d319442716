import { type Batch, batchesOf, unfolded } from "./batches";
import { type Bound, isOneBand, layoutsOf } from "./bounds";
import type { Boxes, BoxThen } from "./boxes";
import { isAtLeast, longerExposed, type Rank, valuesIn } from "./dominance";
import type { Instance } from "./instance";
import { beginning, type Label } from "./label";
import { LeastFirst } from "./queue";
import type { SoFar } from "./soFar";
import { unbeaten } from "./unbeaten";

/** A way up to a month in which the box no longer suffices, a batch at a time. */
interface Stage {
  box: BoxThen;
  month: number;
  cents: number;
  hours: number;
  /** Whether a drive joined below the others: no way, but none costs less than it. */
  joinsBelow: boolean;
  by: { from: Stage; batch: Batch } | null;
  isOver: boolean;
}

/** Whether a pool is one band that stays one, under one layout. */
export function staysOneBand(instance: Instance): boolean {
  const layouts = layoutsOf(instance);
  return isOneBand(instance) && instance.groups.length === 1 && layouts.length === 1 && !layouts[0]?.dedicatedParity;
}

/** The single acts that a way of batches is. */
function acted(stage: Stage, instance: Instance, boxes: Boxes): Label {
  if (!stage.by) return beginning(boxes);
  const { from, batch } = stage.by;
  return unfolded(acted(from, instance, boxes), from.month, batch, instance, boxes);
}

interface Held extends Omit<Rank, "class"> {
  way: Stage;
}

/** Hours that differ by less are the same. */
const SAME = 1e-9;

/** Of ways with as many drives one makes another idle whose drives are all as large, for no more money. */
function covers(one: Held, other: Held): boolean {
  const [a, b] = [one.way, other.way];
  // What is as large suffices as long.
  if (a.cents > b.cents || one.sum < other.sum || (a.joinsBelow && !b.joinsBelow)) return false;
  if (!isAtLeast(one.values, other.values)) return false;
  return a.cents < b.cents || a.hours + longerExposed(one, other) <= b.hours + SAME;
}

/** After so many ways that were followed it says how far it is. */
const TELL_EVERY = 100;

/**
 * The cheapest way of a pool that is one band and stays one: A* over batches. Ways on which a drive joins below the
 * others are followed too. They cannot be gone, but without them what becomes of one drive would touch the others, and
 * a batch of one size would not be the best: so that what is found is the best where none of them costs less.
 *
 * @param best what is known already
 * @yields how far it is
 * @returns the best way, and what none costs less than: less than the best where a drive would have to join below
 */
export function* cheapestOfOneBand(
  instance: Instance,
  boxes: Boxes,
  bound: Bound,
  best: Label | null,
): Generator<SoFar, SoFar> {
  const batches = batchesOf(instance, boxes);
  const valuesOf = valuesIn(instance);
  const takesIn = unbeaten(covers);
  const takes = (way: Stage): boolean => takesIn(way.box.drives, { way, ...valuesOf(way.box.groups) });
  const queue = new LeastFirst<Stage>();
  let end: Label | null = best;
  let below = Infinity;
  const isNoBetter = (cents: number, hours: number): boolean =>
    end !== null && (cents > end.cents || (cents === end.cents && hours >= end.hours - SAME));
  const put = (stage: Stage) => {
    const isEnd = stage.month >= instance.months;
    const key = stage.cents + (isEnd ? 0 : bound(stage.box, stage.month));
    if (key === Infinity || isNoBetter(key, stage.hours) || (stage.joinsBelow && key >= below)) return;
    if (isEnd && stage.joinsBelow) below = Math.min(below, stage.cents);
    else if (isEnd) end = acted(stage, instance, boxes);
    else if (takes(stage)) queue.put(stage, key);
  };
  const soFar = (): SoFar => ({
    best: end,
    least: Math.min(queue.least(), below, end?.cents ?? Infinity),
    boxes: boxes.count(),
  });
  const { start } = boxes;
  put({ box: start, month: start.until, cents: 0, hours: 0, joinsBelow: false, by: null, isOver: false });
  for (let followed = 1; queue.size > 0; followed += 1) {
    const key = queue.least();
    const stage = queue.take();
    if (!stage || stage.isOver || isNoBetter(key, stage.hours) || (stage.joinsBelow && key >= below)) continue;
    for (const batch of batches(stage.box, stage.month))
      put({
        box: batch.box,
        month: Math.max(stage.month, batch.box.until),
        cents: stage.cents + batch.cents,
        hours: stage.hours + batch.hours,
        joinsBelow: stage.joinsBelow || batch.joinsBelow,
        by: { from: stage, batch },
        isOver: false,
      });
    if (followed % TELL_EVERY === 0) yield soFar();
  }
  return soFar();
}
