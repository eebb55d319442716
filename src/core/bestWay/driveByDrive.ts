import type { Layout } from "../layouts/layout";
import type { Boxes, BoxThen, Kind } from "./boxes";
import { runningFrom } from "./acts";
import { isEverDue } from "./dominance";
import { lastingOf, sizesOf } from "./equalDrives";
import type { Instance } from "./instance";

/** Some months, the last one not counted. */
interface Span {
  from: number;
  to: number;
}

/**
 * How many drives a pool of one band has, span of months by span. What a drive costs from a month on depends on nothing
 * else: it must be as large as so many drives must be. Tables are by month of the span and place of the drive's size;
 * a drive that is not there yet has place 0.
 */
interface Course {
  drives: number;
  span: Span;
  /** Of the spans after it; null for the last. */
  then: Course | null;
  /** The least that a drive costs from a month on that need not go. */
  cents: Float64Array;
  /** The least that it costs if it is replaced in that month; null where no drive is ever due. */
  replaced: Float64Array | null;
  /** The month in which it is too small; null where no drive is ever due. */
  small: Int16Array | null;
  /** What a drive costs that joins in the last month of the span. */
  joins: number;
  /** What those cost that join in later spans. */
  later: number;
}

/** So many courses are looked through at most for one box. */
const MOST_COURSES = 2500;

/** How many courses there are of so many spans, in which so many drives may join. */
function coursesOf(spans: number, joining: number): number {
  let count = 1;
  for (let i = 1; i <= joining; i += 1) count = (count * (spans + i)) / i;
  return count;
}

/** The spans in which months are looked at: as many as can be looked through. */
function spansFor(months: number, joining: number): Span[] {
  let count = 1;
  while (count < months && coursesOf(count + 1, joining) <= MOST_COURSES) count += 1;
  const start = (i: number): number => Math.round((i * months) / count);
  return Array.from({ length: count }, (_, i) => ({ from: start(i), to: start(i + 1) }));
}

/** What courses are worked out with. */
interface Setting {
  instance: Instance;
  withDue: boolean;
  /** Places of sizes, with that of none. */
  places: number;
  offers: readonly { place: number; cents: Float64Array }[];
  /** The least place of a size of which so many drives suffice in a month. */
  leastPlace: (drives: number, month: number) => number;
}

/** What it costs from a month on to have replaced a drive then; it may be in any later span. */
function replacedIn(course: Course | null, month: number, place: number, places: number): number {
  let at = course;
  while (at && month >= at.span.to) at = at.then;
  return at?.replaced ? (at.replaced[(month - at.span.from) * places + place] as number) : 0;
}

/** What a drive of a size that is bought in a month still costs after it. */
function afterBuying(course: Course, month: number, place: number, { instance, places }: Setting): number {
  const inSpan = month + 1 < course.span.to;
  const holder = inSpan ? course : course.then;
  if (!holder) return 0;
  const at = (month + 1 - holder.span.from) * places + place;
  const due = month + instance.life;
  if (!holder.small || due >= instance.months) return holder.cents[at] as number;
  return replacedIn(holder, Math.min(due, holder.small[at] as number), place, places);
}

/** What it costs to buy in a month a drive of a place at least, by place. */
function buyingIn(course: Course, month: number, least: number, setting: Setting): Float64Array {
  const { places, offers } = setting;
  const buying = new Float64Array(places + 1).fill(Infinity);
  for (const { place, cents } of offers) {
    if (place < least) continue;
    const cost = (cents[month] as number) + afterBuying(course, month, place, setting);
    buying[place] = Math.min(buying[place] as number, cost);
  }
  for (let place = places - 1; place >= 0; place -= 1)
    buying[place] = Math.min(buying[place] as number, buying[place + 1] as number);
  return buying;
}

/** Fills the tables of a course in, the last month first. */
function fill(course: Course, setting: Setting): void {
  const { span, drives, then, cents, replaced, small } = course;
  const { places, leastPlace, instance } = setting;
  for (let month = span.to - 1; month >= span.from; month -= 1) {
    const at = (month - span.from) * places;
    const least = leastPlace(drives, month);
    const buying = buyingIn(course, month, least, setting);
    replaced?.set(buying.subarray(0, places), at);
    // The same drive a month later: in this span, or at the beginning of the next.
    const [next, nextAt] = month + 1 < span.to ? [course, at + places] : [then, 0];
    for (let place = 0; place < places; place += 1) {
      const isSmall = place < least || place === 0;
      cents[at + place] = isSmall ? (buying[place] as number) : (next?.cents[nextAt + place] ?? 0);
      if (small) small[at + place] = isSmall ? month : (next?.small?.[nextAt + place] ?? instance.months);
    }
  }
}

/** A course with its tables; null where in some month not even the largest drives suffice. */
function courseOf(drives: number, span: Span, then: Course | null, setting: Setting): Course | null {
  const { places, withDue, instance } = setting;
  const size = (span.to - span.from) * places;
  const later = then ? then.later + (then.drives - drives) * then.joins : 0;
  const course: Course = {
    drives,
    span,
    then,
    cents: new Float64Array(size),
    replaced: withDue ? new Float64Array(size) : null,
    small: withDue ? new Int16Array(size) : null,
    joins: 0,
    later,
  };
  fill(course, setting);
  const last = size - places;
  if (course.cents[size - 1] === Infinity) return null;
  return { ...course, joins: (course.cents[last] as number) + runningFrom(instance, span.to - 1) };
}

/** All courses from each span on: each that follows is gone on with, with as many drives before or fewer. */
function allCourses(spans: readonly Span[], fewest: number, widest: number, setting: Setting): Course[][] {
  const courses: Course[][] = [];
  for (let at = spans.length - 1; at >= 0; at -= 1) {
    const after: (Course | null)[] = courses[at + 1] ?? [null];
    courses[at] = after.flatMap((then) =>
      Array.from({ length: (then?.drives ?? widest) - fewest + 1 }, (_, i) =>
        courseOf(fewest + i, spans[at] as Span, then, setting),
      ).flatMap((each) => each ?? []),
    );
  }
  return courses;
}

/** Drives of a box that nothing tells apart. */
interface Alike {
  place: number;
  due: number;
  count: number;
}

/**
 * A bound for one band, where every drive counts as the smallest: how many drives the pool has is looked at span by
 * span, and for each such course every drive by itself. It must be as large as that many drives must be in each month,
 * goes when it is due, and is bought for the least that this can be had for; one that joins does so as late as its span
 * allows.
 */
export function driveByDrive(
  instance: Instance,
  boxes: Boxes,
  layouts: readonly Layout[],
): (box: BoxThen, month: number) => number {
  const { months, sold, bays, rules } = instance;
  const sizes = sizesOf(instance);
  const places = sizes.length + 1;
  const lasting = lastingOf(instance, boxes, layouts, boxes.start.groups[0]?.options ?? {});
  const setting: Setting = {
    instance,
    withDue: isEverDue(instance),
    places,
    offers: sold.map(({ bytes, cents }) => ({ place: sizes.indexOf(bytes) + 1, cents })),
    leastPlace(drives, month) {
      const at = lasting(drives).findIndex((until) => until > month);
      return at < 0 ? places : at + 1;
    },
  };
  const fewest = Math.max(1, boxes.start.drives);
  const widest = Math.min(bays, rules.mostDrives ?? Infinity);
  const spans = spansFor(months, widest - fewest);
  const courses = allCourses(spans, fewest, widest, setting);
  const placeOf = (kind: Kind): number => sizes.indexOf(kind.bytes) + 1;

  const alikeIn = (box: BoxThen): Alike[] => {
    const alike = new Map<number, Alike>();
    for (const { kinds } of box.groups)
      for (const kind of kinds) {
        const each = alike.get(kind.index) ?? { place: placeOf(kind), due: kind.due, count: 0 };
        each.count += 1;
        alike.set(kind.index, each);
      }
    return [...alike.values()];
  };

  function costsOf(course: Course, { place, due, count }: Alike, month: number): number {
    const at = (month - course.span.from) * places + place;
    if (!course.small || due >= months) return count * (course.cents[at] as number);
    return count * replacedIn(course, Math.min(Math.max(due, month), course.small[at] as number), place, places);
  }

  return (box, month) => {
    if (month >= months) return 0;
    const at = spans.findIndex(({ to }) => to > month);
    const alike = alikeIn(box);
    let best = Infinity;
    for (const course of courses[at] as Course[]) {
      const joining = course.drives - box.drives;
      if (joining < 0) continue;
      let sum = course.later + joining * course.joins;
      for (let i = 0; i < alike.length && sum < best; i += 1) sum += costsOf(course, alike[i] as Alike, month);
      if (sum < best) best = sum;
    }
    return best;
  };
}
