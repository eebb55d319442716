import type { BoxRules, GroupOptions, LayoutId } from "../document/plan";
import { fewestDrives, wrongCount } from "../layouts/problemsOfLayout";
import { rulesForJoining } from "../layouts/joins";
import type { Layout } from "../layouts/layout";
import { layoutOf } from "../layouts/registry";
import { growsByOne, widensByDrive } from "../layouts/widens";
import type { Boxes, BoxThen, Kind, Shape } from "./boxes";
import { exposedHours } from "./exposure";
import type { Instance } from "./instance";

/** What is done with drives that are bought, or taken out. */
export type Act =
  | { kind: "add"; shape: Shape; bought: Kind }
  /** One drive for another, or both of a pair. */
  | { kind: "replace"; shape: Shape; olds: readonly Kind[]; bought: Kind }
  | { kind: "further-group"; layout: Layout; options: GroupOptions; bought: readonly Kind[] }
  | { kind: "new-level"; shape: Shape; to: Layout; bought: readonly Kind[] }
  | { kind: "take-out"; shape: Shape; old: Kind };

/** An act, the box after it, what it costs and for how long it leaves data exposed. */
export interface Move {
  act: Act;
  box: BoxThen;
  cents: number;
  hours: number;
}

/** A size as it can be bought in a month. */
export interface Offer {
  kind: Kind;
  cents: number;
}

const without = (kinds: readonly Kind[], old: Kind): Kind[] => {
  const at = kinds.indexOf(old);
  return [...kinds.slice(0, at), ...kinds.slice(at + 1)];
};

/** The least kinds of a group: what is no smaller and need not go sooner than another is never changed before it. */
function leastOf(kinds: readonly Kind[]): Kind[] {
  const different = [...new Set(kinds)];
  return different.filter(
    (kind) => !different.some((other) => other !== kind && other.bytes <= kind.bytes && other.due <= kind.due),
  );
}

/** What running one drive more costs, from a month on until the end. */
export const runningFrom = (instance: Instance, month: number): number =>
  Math.round((instance.centsPerDriveYear * (instance.months - month)) / 12);

/** All multisets of so many. */
function* multisets<T>(from: readonly T[], count: number, first = 0): Generator<T[]> {
  if (count === 0) return void (yield []);
  for (let i = first; i < from.length; i += 1)
    for (const rest of multisets(from, count - 1, i)) yield [from[i] as T, ...rest];
}

/** More ways than this to begin a group are not looked through: all of its drives are of one size then. */
const MOST_BEGINNINGS = 800;

const choose = (n: number, k: number): number => (k === 0 ? 1 : (choose(n - 1, k - 1) * n) / k);

/** What the acts of a month are thought of with. */
interface Acting {
  instance: Instance;
  boxes: Boxes;
  /** What can be bought in a month. */
  offers: (month: number) => readonly Offer[];
  hoursCount: boolean;
}

/** What can be bought in each month, with the month by which it must go. */
export function offersOf({ sold, life, months }: Instance, boxes: Boxes): (month: number) => readonly Offer[] {
  const known: Offer[][] = [];
  const inMonth = (month: number): Offer[] =>
    sold.flatMap(({ bytes, cents }) => {
      const price = cents[month] as number;
      const due = month + life;
      return price < Infinity ? [{ kind: boxes.kindOf(bytes, due >= months ? Infinity : due), cents: price }] : [];
    });
  return (month) => (known[month] ??= inMonth(month));
}

/** A box with a group changed, or one more. */
function withShape({ boxes }: Acting, box: BoxThen, old: Shape | null, now: Shape): BoxThen {
  const at = old ? box.groups.indexOf(old) : -1;
  return boxes.boxOf([...box.groups.filter((_, i) => i !== at), now]);
}

function adding(acting: Acting, box: BoxThen, shape: Shape, month: number): Move[] {
  const { instance, boxes, offers } = acting;
  const { layout, options, kinds } = shape;
  if (box.drives >= instance.bays || !growsByOne(layout, kinds.length, instance.rules, options)) return [];
  const least = leastToJoin(shape, instance.rules);
  return offers(month).flatMap(({ kind, cents }): Move[] => {
    if (kind.bytes < least || !parityAllows(shape, kind)) return [];
    const now = boxes.shapeOf(layout, options, [...kinds, kind], shape);
    const act: Act = { kind: "add", shape, bought: kind };
    return [{ act, box: withShape(acting, box, shape, now), cents: cents + runningFrom(instance, month), hours: 0 }];
  });
}

/** The kinds of a group of which one may be the best to be changed. */
function oldsOf({ instance, boxes, hoursCount }: Acting, box: BoxThen, { layout, kinds, tolerance }: Shape): Kind[] {
  const { rules, bays } = instance;
  const isFree = box.drives < bays;
  // A low smallest keeps it cheap to add drives where each need only be as large as that; where bands stay as they were
  // cut, which drive goes decides where the next are cut; and how long a change exposes depends on what is there yet.
  const low = layout.cutsAtSizes && rules.joining === "as-smallest-member" && isFree;
  const cut = layout.cutsAtSizes && boxes.stepwise;
  if (low || cut || (hoursCount && tolerance === 1)) return [...new Set(kinds)];
  const parity = layout.dedicatedParity ? kinds.slice(-layout.dedicatedParity) : [];
  return [...new Set([...leastOf(kinds), ...parity])];
}

const isNoMore = (bought: Kind, old: Kind): boolean =>
  bought.bytes < old.bytes || (bought.bytes === old.bytes && bought.due <= old.due);

function replacing(acting: Acting, box: BoxThen, shape: Shape, month: number): Move[] {
  const { instance, boxes, offers } = acting;
  const { layout, options, kinds } = shape;
  const parity = layout.dedicatedParity ? kinds.slice(-layout.dedicatedParity) : [];
  return oldsOf(acting, box, shape).flatMap((old) =>
    offers(month).flatMap(({ kind, cents }): Move[] => {
      if (isNoMore(kind, old) || (!parity.includes(old) && !parityAllows(shape, kind))) return [];
      const now = boxes.shapeOf(layout, options, [...without(kinds, old), kind], shape);
      const hours = exposedHours(instance, box, shape, old, kind);
      const act: Act = { kind: "replace", shape, olds: [old], bought: kind };
      return [{ act, box: withShape(acting, box, shape, now), cents, hours }];
    }),
  );
}

/** Whether a group is a mirrored pair. */
export const isPair = ({ layout, kinds }: Pick<Shape, "layout" | "kinds">): boolean =>
  layout.stripe({}).copies === "all" && kinds.length === 2;

/** Both drives of a pair by two of one size. */
function replacingPair(acting: Acting, box: BoxThen, shape: Shape, month: number): Move[] {
  const { instance, boxes, offers } = acting;
  const { layout, options, kinds } = shape;
  return offers(month).flatMap(({ kind, cents }): Move[] => {
    if (kinds.some(({ bytes }) => kind.bytes < bytes) || kinds.every((old) => isNoMore(kind, old))) return [];
    const pair = kinds.map(() => kind);
    const now = boxes.shapeOf(layout, options, pair);
    // The larger one first: it is filled as far as the smaller one.
    const [small, large] = kinds as [Kind, Kind];
    const half = boxes.shapeOf(layout, options, [small, kind]);
    const hours = exposedHours(instance, box, shape, large, kind) + exposedHours(instance, box, half, small, kind);
    const act: Act = { kind: "replace", shape, olds: kinds, bought: kind };
    return [{ act, box: withShape(acting, box, shape, now), cents: cents * kinds.length, hours }];
  });
}

const costOf = (offers: readonly Offer[], instance: Instance, month: number): number =>
  offers.reduce((sum, { cents }) => sum + cents + runningFrom(instance, month), 0);

function furtherGroup(acting: Acting, box: BoxThen, month: number): Move[] {
  const { instance, boxes, offers } = acting;
  return beginnings(instance, box).flatMap(({ layout, options, width }): Move[] => {
    if (box.drives + width > instance.bays) return [];
    const all = offers(month);
    const mixed = !instance.equalPairs && choose(all.length + width - 1, width) <= MOST_BEGINNINGS;
    const sets = mixed ? [...multisets(all, width)] : all.map((offer) => Array.from({ length: width }, () => offer));
    return sets.map((set): Move => {
      const bought = set.map(({ kind }) => kind);
      const now = boxes.shapeOf(layout, options, bought);
      const act: Act = { kind: "further-group", layout, options, bought };
      return { act, box: withShape(acting, box, null, now), cents: costOf(set, instance, month), hours: 0 };
    });
  });
}

function changingLevel(acting: Acting, box: BoxThen, shape: Shape, month: number): Move[] {
  const { instance, boxes, offers } = acting;
  const { layout, options, kinds } = shape;
  const { rules } = instance;
  const one = box.drives < instance.bays ? offers(month).map((offer) => [offer]) : [];
  const equal = kinds.every(({ bytes }) => bytes === kinds[0]?.bytes);
  return levelsOf(instance, shape).flatMap(({ to, refuses }) =>
    [[], ...one].flatMap((set: Offer[]): Move[] => {
      const bought = set.map(({ kind }) => kind);
      const change = { from: layout.id, to: to.id, drives: kinds.length, joining: bought.length, leaving: 0, equal };
      if (refuses(change) !== null || bought.some(({ bytes }) => bytes < leastToJoin(shape, rules))) return [];
      if (wrongCount(to, kinds.length + bought.length, rules, options)) return [];
      const now = boxes.shapeOf(to, options, [...kinds, ...bought], shape);
      const act: Act = { kind: "new-level", shape, to, bought };
      return [{ act, box: withShape(acting, box, shape, now), cents: costOf(set, instance, month), hours: 0 }];
    }),
  );
}

function takingOut(acting: Acting, box: BoxThen, shape: Shape, month: number): Move[] {
  const { layout, options, kinds } = shape;
  const { rules } = acting.instance;
  // What its volumes have grown to has to be taken back first.
  if (!layout.chunked || !rules.shrinkVolumes || wrongCount(layout, kinds.length - 1, rules, options)) return [];
  const due = [...new Set(kinds)].filter((kind) => kind.due <= month);
  return due.map((old): Move => {
    const now = acting.boxes.shapeOf(layout, options, without(kinds, old));
    const act: Act = { kind: "take-out", shape, old };
    return { act, box: withShape(acting, box, shape, now), cents: 0, hours: 0 };
  });
}

/**
 * What can be done in a box in one month, a drive or a group at a time.
 *
 * @param hoursCount whether exposed hours matter besides money: then it does which drive is changed while a bay is free
 */
export function actsOf(instance: Instance, boxes: Boxes, hoursCount = false): (box: BoxThen, month: number) => Move[] {
  const acting: Acting = { instance, boxes, offers: offersOf(instance, boxes), hoursCount };
  const change = (box: BoxThen, shape: Shape, month: number) =>
    instance.equalPairs && isPair(shape)
      ? replacingPair(acting, box, shape, month)
      : replacing(acting, box, shape, month);
  return (box, month) => [
    ...[...new Set(box.groups)].flatMap((shape) => [
      ...adding(acting, box, shape, month),
      ...change(box, shape, month),
      ...changingLevel(acting, box, shape, month),
      ...takingOut(acting, box, shape, month),
    ]),
    ...furtherGroup(acting, box, month),
  ];
}

/** The least a drive must have to join a group. */
function leastToJoin({ layout, kinds }: Shape, rules: BoxRules): number {
  const { joining } = rulesForJoining(layout, rules);
  // In one band every drive counts as the smallest: a smaller one would shrink what there is.
  if (joining === "as-smallest-member" || layout.countsSmallest) return kinds[0]?.bytes ?? 0;
  return joining === "as-largest-member" ? (kinds.at(-1)?.bytes ?? 0) : 0;
}

/** Data drives are no larger than the parity drives: one that is larger becomes the parity drive itself. */
const parityAllows = ({ layout, kinds }: Shape, bought: Kind): boolean =>
  layout.dedicatedParity === undefined || bought.bytes <= (kinds.at(-layout.dedicatedParity)?.bytes ?? 0);

/** The groups that a pool can begin: its first, of any level that is wished; further ones like those that it has. */
function beginnings(
  { rules, layouts, groups }: Instance,
  box: BoxThen,
): { layout: Layout; options: GroupOptions; width: number }[] {
  const [last] = box.groups;
  if (!last)
    return layouts.map((id) => ({
      layout: layoutOf(id),
      options: {},
      width: Math.max(2, fewestDrives(layoutOf(id), rules)),
    }));
  const first = groups[0]?.drives.length ?? last.kinds.length;
  const grows = growsByOne(last.layout, last.kinds.length, rules, last.options) && widensByDrive(last.layout, rules);
  return grows || last.layout.chunked || last.layout.independent
    ? []
    : [{ layout: last.layout, options: last.options, width: first }];
}

/** The levels that a group can be brought to without a backup. */
function levelsOf({ rules, layouts }: Instance, { layout }: Shape) {
  if (rules.levelChanges === "none") return [];
  return layout.becomes.flatMap(({ to, refuses, linuxOnly }) =>
    layouts.includes(to as LayoutId) && rules.layouts.includes(to) && !(linuxOnly && rules.arrayFormat !== "linux-raid")
      ? [{ to: layoutOf(to), refuses }]
      : [],
  );
}
