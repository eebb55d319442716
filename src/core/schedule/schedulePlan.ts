import { Temporal } from "temporal-polyfill";
import { hourFinder } from "../calendar/nextFree";
import { AWAKE } from "../calendar/planCalendar";
import type { Plan, PlanCalendar } from "../document/plan";
import { endOfWork } from "../logbook/endOfWork";
import { attentionOf, boughtFor, MINUTES_TO_BEGIN } from "../steps/attention";
import type { Hours } from "../time/hours";
import type { Attention } from "../steps/stepModule";
import type { Walk, WalkedStep } from "../walk/moment";

/** When a step is begun and ended, in milliseconds since 1970. */
export interface ScheduledStep {
  step: string;
  start: number;
  end: number;
  /** What it needs to begin; null for a step that is not carried out. */
  attention: Attention | null;
  /** What it waits for beyond the end of the one before it. */
  waitsFor: "day" | "delivery" | "hands" | null;
}

/** Drives to be ordered together. */
export interface Order {
  drives: string[];
  /** Days as YYYY-MM-DD. */
  orderOn: string;
  deliveredOn: string;
}

/** A plan in the calendar. */
export interface Schedule {
  calendar: PlanCalendar;
  begin: number;
  end: number;
  /** One for each step, in their order. */
  steps: ScheduledStep[];
  orders: Order[];
  /** The first step that cannot be given a date, or null. */
  stuck: Stuck | null;
}

/**
 * A step that cannot be given a date: there is no hour at which it could be begun within three years, or it would last
 * beyond the year 2100.
 */
export interface Stuck {
  step: string;
  why: "no-hour" | "too-long";
}

/** The year in which calendars end, as those of plans do. */
const LAST_YEAR = 2100;

/** Deliveries count as there from this hour on. */
const DELIVERED_AT = "18:00";

/** The orders of a plan: drives are ordered on the first day, or in time for the day for which their step waits. */
function ordering(calendar: PlanCalendar, begin: Temporal.ZonedDateTime) {
  const { timeZone, deliveryDays } = calendar;
  const orders: Order[] = [];
  const delivered = new Map<string, Temporal.ZonedDateTime>();
  /** When a drive is there that is needed in a phase of the plan; orders it the first time. */
  const delivery = (drive: string, phase: Temporal.PlainDate): Temporal.ZonedDateTime => {
    const known = delivered.get(drive);
    if (known) return known;
    const early = phase.subtract({ days: deliveryDays });
    const orderOn = Temporal.PlainDate.compare(early, begin.toPlainDate()) > 0 ? early : begin.toPlainDate();
    const day = orderOn.add({ days: deliveryDays });
    const there = day.toZonedDateTime(deliveryDays === 0 ? { timeZone } : { timeZone, plainTime: DELIVERED_AT });
    delivered.set(drive, there);
    const same = orders.find((order) => order.orderOn === orderOn.toString());
    if (same) same.drives.push(drive);
    else orders.push({ drives: [drive], orderOn: orderOn.toString(), deliveredOn: day.toString() });
    return there;
  };
  return { orders, delivery };
}

/** A moment that is put off, with what it was last put off for. */
interface Waiting {
  at: Temporal.ZonedDateTime;
  waitsFor: ScheduledStep["waitsFor"];
}

const putOff = (now: Waiting, to: Temporal.ZonedDateTime, why: ScheduledStep["waitsFor"]): Waiting =>
  Temporal.ZonedDateTime.compare(to, now.at) > 0 ? { at: to, waitsFor: why } : now;

/** A step that is under way, as it was begun and is expected to end; null for any other. */
function underWay(
  plan: Plan,
  { step, done, cost }: WalkedStep,
  pace: keyof Hours,
): Omit<ScheduledStep, "attention"> | null {
  const running = done ? plan.underWay?.find((each) => each.step === step.id) : undefined;
  if (!running) return null;
  const end = endOfWork(running, cost.boxWork?.hours ?? cost.hours)[pace];
  return { step: step.id, start: Date.parse(running.start), end, waitsFor: null };
}

/** The later of two moments. */
const later = (one: Temporal.ZonedDateTime, other: number): Temporal.ZonedDateTime =>
  other > one.epochMilliseconds
    ? Temporal.Instant.fromEpochMilliseconds(Math.round(other)).toZonedDateTimeISO(one.timeZoneId)
    : one;

/** From when a plan goes on: its first day, or the end of what has been carried out last. */
const goneOnFrom = ({ history = [] }: Plan, begin: Temporal.ZonedDateTime): Temporal.ZonedDateTime =>
  later(begin, Math.max(0, ...history.map(({ end }) => Date.parse(end))));

/** Finders of the free hours of whoever begins a step. */
const finders = ({ hands, excluded }: PlanCalendar) => ({
  box: hourFinder(hands, excluded, MINUTES_TO_BEGIN.box),
  screen: hourFinder(AWAKE, excluded, MINUTES_TO_BEGIN.screen),
});

/**
 * Turns the hours of a plan into dates: each step begins when the one before has ended (or with it), its day has come,
 * what it needs has been delivered, and somebody is at the box, or awake at the screen. Once begun it runs through the
 * nights. What is under way began when it was begun, and ends by its last reading; what has been carried out is past.
 *
 * @param walk the plan, walked
 * @param pace which of its hours count
 * @example schedulePlan(walkPlan(plan), calendar).steps[0].start
 */
export function schedulePlan(
  { plan, moments }: Walk,
  calendar: PlanCalendar,
  pace: keyof Hours = "expected",
): Schedule {
  const { timeZone } = calendar;
  const begin = Temporal.PlainDate.from(calendar.start).toZonedDateTime({ timeZone });
  const { orders, delivery } = ordering(calendar, begin);
  const freeHour = finders(calendar);
  const steps: ScheduledStep[] = [];
  const atEnd = Temporal.PlainDate.from({ year: LAST_YEAR, month: 12, day: 31 }).toZonedDateTime({ timeZone });
  let ended = goneOnFrom(plan, begin);
  // Drives for a step that waits for a day, and for those after it, are ordered for that day.
  let phase = begin.toPlainDate();
  let stuck: Stuck | null = null;
  const begun = (walked: WalkedStep, before: Plan, after: Plan, previous: ScheduledStep | null): ScheduledStep => {
    const { step } = walked;
    const from = previous ? Temporal.Instant.fromEpochMilliseconds(previous.start).toZonedDateTimeISO(timeZone) : ended;
    let waiting: Waiting = { at: from, waitsFor: null };
    if (step.notBefore !== undefined) {
      const day = Temporal.PlainDate.from(step.notBefore);
      if (Temporal.PlainDate.compare(day, phase) > 0) phase = day;
      waiting = putOff(waiting, day.toZonedDateTime({ timeZone }), "day");
    }
    for (const drive of boughtFor(step, before)) waiting = putOff(waiting, delivery(drive, phase), "delivery");
    const attention = attentionOf(step, before, after);
    // What begins with the step before it is begun in the same visit.
    const sameVisit = previous && (previous.attention === "box" || attention === "screen");
    if (!(sameVisit && waiting.waitsFor === null)) {
      const free = freeHour[attention](waiting.at);
      if (free) waiting = putOff(waiting, free, "hands");
      else stuck ??= { step: step.id, why: "no-hour" };
    }
    const lasts = Math.round(walked.cost.hours[pace] * 3_600_000);
    const isTooLong = waiting.at.epochMilliseconds + lasts > atEnd.epochMilliseconds;
    if (isTooLong) stuck ??= { step: step.id, why: "too-long" };
    const end = isTooLong ? atEnd : waiting.at.add({ milliseconds: lasts });
    if (Temporal.ZonedDateTime.compare(end, ended) > 0) ended = end;
    const last = end.epochMilliseconds;
    const start = Math.min(waiting.at.epochMilliseconds, last);
    return { step: step.id, start, end: last, attention, waitsFor: waiting.waitsFor };
  };
  moments.forEach(({ walked, state }, i) => {
    const before = moments[i - 1];
    if (!walked || !before) return;
    const running = underWay(plan, walked, pace);
    if (running) {
      steps.push({ ...running, attention: attentionOf(walked.step, before.state.plan, state.plan) });
      ended = later(ended, running.end);
      return;
    }
    const at = ended.epochMilliseconds;
    const previous = walked.step.together === true ? (steps.at(-1) ?? null) : null;
    steps.push(
      walked.done
        ? begun(walked, before.state.plan, state.plan, previous)
        : { step: walked.step.id, start: at, end: at, attention: null, waitsFor: null },
    );
  });
  return { calendar, begin: begin.epochMilliseconds, end: ended.epochMilliseconds, steps, orders, stuck };
}
