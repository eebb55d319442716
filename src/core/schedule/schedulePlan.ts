import { Temporal } from "temporal-polyfill";
import { attentionOf, boughtFor, MINUTES_TO_BEGIN } from "../steps/attention";
import type { Attention } from "../steps/stepModule";
import { nextFree } from "../calendar/nextFree";
import { AWAKE } from "../calendar/planCalendar";
import type { PlanCalendar } from "../document/plan";
import type { Walk } from "../walk/moment";

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
  /** The first step for which no hour could be found within three years, or null. */
  stuck: string | null;
}

/** Deliveries count as there from this hour on. */
const DELIVERED_AT = "18:00";

/**
 * Turns the hours of a plan into dates: each step begins when the one before has ended (or with it), its day has come,
 * what it needs has been delivered, and somebody is at the box, or awake at the screen. Once begun it runs through the
 * nights. Drives are ordered on the first day, or in time for the day for which their step waits.
 *
 * @param walk the plan, walked
 * @param pace which of its hours count
 * @example schedule(walk(plan), calendar).steps[0].start
 */
export function schedulePlan(
  { moments }: Walk,
  calendar: PlanCalendar,
  pace: "low" | "expected" | "high" = "expected",
): Schedule {
  const { timeZone } = calendar;
  const begin = Temporal.PlainDate.from(calendar.start).toZonedDateTime({ timeZone });
  const orders: Order[] = [];
  const delivered = new Map<string, Temporal.ZonedDateTime>();
  const steps: ScheduledStep[] = [];
  let ended = begin;
  // Drives for a step that waits for a day, and for those after it, are ordered for that day.
  let phase = begin.toPlainDate();
  let stuck: string | null = null;
  moments.slice(1).forEach((moment, i) => {
    const { walked } = moment;
    const before = moments[i];
    if (!walked || !before) return;
    const previous = steps.at(-1);
    const together = walked.step.together === true && previous !== undefined;
    let at = together ? Temporal.Instant.fromEpochMilliseconds(previous.start).toZonedDateTimeISO(timeZone) : ended;
    if (!walked.done) {
      steps.push({
        step: walked.step.id,
        start: ended.epochMilliseconds,
        end: ended.epochMilliseconds,
        attention: null,
        waitsFor: null,
      });
      return;
    }
    let waitsFor: ScheduledStep["waitsFor"] = null;
    const later = (to: Temporal.ZonedDateTime, why: ScheduledStep["waitsFor"]) => {
      if (Temporal.ZonedDateTime.compare(to, at) <= 0) return;
      at = to;
      waitsFor = why;
    };
    if (walked.step.notBefore !== undefined) {
      const day = Temporal.PlainDate.from(walked.step.notBefore);
      if (Temporal.PlainDate.compare(day, phase) > 0) phase = day;
      later(day.toZonedDateTime({ timeZone }), "day");
    }
    for (const drive of boughtFor(walked.step, before.state.plan)) {
      let there = delivered.get(drive);
      if (!there) {
        const early = phase.subtract({ days: calendar.deliveryDays });
        const orderOn = Temporal.PlainDate.compare(early, begin.toPlainDate()) > 0 ? early : begin.toPlainDate();
        const day = orderOn.add({ days: calendar.deliveryDays });
        there =
          calendar.deliveryDays === 0
            ? orderOn.toZonedDateTime({ timeZone })
            : day.toZonedDateTime({ timeZone, plainTime: DELIVERED_AT });
        delivered.set(drive, there);
        const same = orders.find((order) => order.orderOn === orderOn.toString());
        if (same) same.drives.push(drive);
        else orders.push({ drives: [drive], orderOn: orderOn.toString(), deliveredOn: day.toString() });
      }
      later(there, "delivery");
    }
    const attention = attentionOf(walked.step, before.state.plan, moment.state.plan);
    // What begins with the step before it is begun in the same visit.
    if (!(together && waitsFor === null && (previous.attention === "box" || attention === "screen"))) {
      const free = nextFree(
        at,
        attention === "box" ? calendar.hands : AWAKE,
        calendar.excluded,
        MINUTES_TO_BEGIN[attention],
      );
      if (free) later(free, "hands");
      else stuck ??= walked.step.id;
    }
    const end = at.add({ milliseconds: Math.round(walked.cost.hours[pace] * 3_600_000) });
    steps.push({ step: walked.step.id, start: at.epochMilliseconds, end: end.epochMilliseconds, attention, waitsFor });
    if (Temporal.ZonedDateTime.compare(end, ended) > 0) ended = end;
  });
  return { calendar, begin: begin.epochMilliseconds, end: ended.epochMilliseconds, steps, orders, stuck };
}
