import { growsByOne } from "../layouts/widens";
import { type Offer, offersOf, runningFrom } from "./acts";
import { layoutsOf } from "./bounds";
import type { Boxes, BoxThen, Kind, Shape } from "./boxes";
import { lastingOf, sizesOf } from "./equalDrives";
import { exposedHours } from "./exposure";
import type { Instance } from "./instance";
import type { Label } from "./label";

/** All that is bought in one month for a pool of one band: drives for others, and drives that join. */
export interface Batch {
  shape: Shape;
  olds: readonly Kind[];
  /** One for each old drive, then those that join. */
  bought: readonly Kind[];
  /** What each of the bought costs, and running those that join. */
  prices: readonly number[];
  cents: number;
  hours: number;
  box: BoxThen;
  /** Whether a drive joins that is smaller than all others: the rules do not allow that. */
  joinsBelow: boolean;
}

/** Drives that are wanted at once, each at least so large. */
interface Wanted {
  bytes: number;
  count: number;
}

/** How many drives of which least size each bought one must have, the least first. */
function wantedOf(least: number, olds: readonly Kind[], joining: number): Wanted[] {
  const bytes = [...Array.from({ length: joining }, () => least), ...olds.map((old) => Math.max(least, old.bytes))];
  const sizes = [...new Set(bytes)].sort((a, b) => a - b);
  return sizes.map((size) => ({ bytes: size, count: bytes.filter((each) => each === size).length }));
}

/**
 * What can be bought for drives that are wanted, one offer for each of them: all of whom one offer is large enough for
 * get the same, since what is still to come is the same for each.
 */
function* offered(
  wanted: readonly Wanted[],
  offers: readonly Offer[],
  before: readonly Offer[] = [],
): Generator<Offer[]> {
  const [first, ...rest] = wanted;
  if (!first) return void (yield [...before]);
  const last = before.at(-1);
  const fits = last && last.kind.bytes >= first.bytes ? [last] : offers.filter(({ kind }) => kind.bytes >= first.bytes);
  for (const offer of fits)
    yield* offered(rest, offers, [...before, ...Array.from({ length: first.count }, () => offer)]);
}

/** For how long data is exposed while drives of a group are replaced, one after the other. */
function hoursOf(
  instance: Instance,
  { layout, kinds, tolerance }: Shape,
  drives: number,
  olds: readonly Kind[],
  bought: readonly Kind[],
): number {
  const now = [...kinds];
  let hours = 0;
  olds.forEach((old, i) => {
    const kind = bought[i] as Kind;
    hours += exposedHours(instance, { drives }, { layout, kinds: now, tolerance }, old, kind);
    now.splice(now.indexOf(old), 1);
    const at = now.findIndex(({ bytes }) => bytes > kind.bytes);
    now.splice(at < 0 ? now.length : at, 0, kind);
  });
  return hours;
}

/** Of what is offered, what is no dearer than all that is larger. */
const worthwhile = (offers: readonly Offer[]): Offer[] =>
  offers.filter((offer) => offers.every((other) => other.kind.bytes <= offer.kind.bytes || other.cents > offer.cents));

/**
 * What can be bought at once for a pool of one band that stays one. Each drive counts as the smallest, so that whatever
 * number of drives a pool comes to have by a month, each of them must be as large as that number asks for, and what
 * becomes of one does not touch the others: those that must be bought in one month are all of one size, and no more are
 * bought than that number asks for. Only which drive may join looks at the others: what joins below them is told.
 *
 * @returns the batches of a box in a month in which it does not suffice; each box afterwards suffices in it
 */
export function batchesOf(instance: Instance, boxes: Boxes): (box: BoxThen, month: number) => Batch[] {
  const { rules, bays } = instance;
  const offers = offersOf(instance, boxes);
  const sizes = sizesOf(instance);
  const lasting = lastingOf(instance, boxes, layoutsOf(instance), boxes.start.groups[0]?.options ?? {});

  /** The least size of which so many drives suffice in a month; Infinity where none does. */
  const leastSize = (drives: number, month: number): number =>
    sizes[lasting(drives).findIndex((until) => until > month)] ?? Infinity;

  function made(shape: Shape, drives: number, due: readonly Kind[], chosen: readonly Offer[], month: number): Batch {
    // Those that join get the smallest, which stand first. The largest is replaced first: it is filled as far as the
    // smallest reaches, which is longer once that is gone.
    const joining = chosen.length - due.length;
    const olds = [...due].reverse();
    const order = [...chosen.slice(joining).reverse(), ...chosen.slice(0, joining)];
    const prices = order.map(({ cents }, i) => cents + (i < olds.length ? 0 : runningFrom(instance, month)));
    const bought = order.map(({ kind }) => kind);
    const stay = [...shape.kinds];
    for (const old of olds) stay.splice(stay.indexOf(old), 1);
    const now = boxes.shapeOf(shape.layout, shape.options, [...stay, ...bought], shape);
    const smallest = Math.min(
      ...stay.map(({ bytes }) => bytes),
      ...bought.slice(0, olds.length).map(({ bytes }) => bytes),
    );
    return {
      shape,
      olds,
      bought,
      prices,
      cents: prices.reduce((sum, each) => sum + each, 0),
      hours: hoursOf(instance, shape, drives, olds, bought),
      box: boxes.boxOf([now]),
      joinsBelow: bought.slice(olds.length).some(({ bytes }) => bytes < smallest),
    };
  }

  return (box, month) => {
    const [shape] = box.groups;
    if (!shape) return [];
    const batches: Batch[] = [];
    const now = worthwhile(offers(month));
    const there = shape.kinds.length;
    for (let drives = there; drives <= bays; drives += 1) {
      if (drives > there && !growsByOne(shape.layout, drives - 1, rules, shape.options)) break;
      const least = leastSize(drives, month);
      if (least === Infinity) continue;
      const olds = shape.kinds.filter(({ bytes, due }) => bytes < least || due <= month);
      const fewer = drives > there ? leastSize(drives - 1, month) : Infinity;
      for (const chosen of offered(wantedOf(least, olds, drives - there), now)) {
        const batch = made(shape, box.drives, olds, chosen, month);
        // With a drive less it would do as well: that one is bought once it is wanted.
        const smallest = batch.box.groups[0]?.kinds[0]?.bytes ?? 0;
        if (smallest < fewer && batch.box.until > month) batches.push(batch);
      }
    }
    return batches;
  };
}

/** A batch as single acts after a way, in their order. */
export function unfolded(from: Label, month: number, batch: Batch, instance: Instance, boxes: Boxes): Label {
  const { shape, olds, bought, prices } = batch;
  let label = from;
  let [before, drives] = [shape, from.box.drives];
  bought.forEach((kind, i) => {
    const old = olds[i];
    const kinds = [...before.kinds];
    if (old) kinds.splice(kinds.indexOf(old), 1);
    const now = boxes.shapeOf(before.layout, before.options, [...kinds, kind], before);
    const cents = prices[i] as number;
    const act = old
      ? ({ kind: "replace", shape: before, olds: [old], bought: kind } as const)
      : ({ kind: "add", shape: before, bought: kind } as const);
    label = {
      box: boxes.boxOf([now]),
      month,
      cents: label.cents + cents,
      hours: label.hours + (old ? exposedHours(instance, { drives }, before, old, kind) : 0),
      acts: label.acts + 1,
      by: { from: label, act, cents },
      isOver: false,
    };
    if (!old) drives += 1;
    before = now;
  });
  return { ...label, month: Math.max(month, label.box.until) };
}
