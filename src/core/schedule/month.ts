import { Temporal } from "temporal-polyfill";
import type { Schedule, ScheduledStep } from "./schedulePlan";

/** One day of a month view. */
export interface MonthDay {
  /** As YYYY-MM-DD. */
  day: string;
  number: number;
  /** Whether it belongs to the month itself, and not to the weeks that it shares with its neighbours. */
  inMonth: boolean;
  excluded: boolean;
  /** The steps that run on it, with whether they begin or end on it. */
  steps: { scheduled: ScheduledStep; begins: boolean; ends: boolean }[];
  orders: string[];
  deliveries: string[];
}

/** The months that a plan touches, as YYYY-MM. */
export function monthsOf(schedule: Schedule): string[] {
  const zoned = (at: number) =>
    Temporal.Instant.fromEpochMilliseconds(at).toZonedDateTimeISO(schedule.calendar.timeZone).toPlainDate();
  const [first, last] = [zoned(schedule.begin).toPlainYearMonth(), zoned(schedule.end).toPlainYearMonth()];
  const months: string[] = [];
  for (let month = first; Temporal.PlainYearMonth.compare(month, last) <= 0; month = month.add({ months: 1 }))
    months.push(month.toString());
  return months;
}

/** The months in which something is to be done, as YYYY-MM. */
export const busyMonths = (schedule: Schedule): string[] =>
  monthsOf(schedule).filter((month) =>
    monthView(schedule, month).some((week) =>
      week.some((day) => day.inMonth && (day.steps.length > 0 || day.orders.length + day.deliveries.length > 0)),
    ),
  );

/**
 * The weeks of a month, Monday first, with what a plan does on each day, by the clock of its time zone.
 *
 * @param month as YYYY-MM
 * @example monthView(schedule, "2026-11")[0][0].day // "2026-10-26"
 */
export function monthView(schedule: Schedule, month: string): MonthDay[][] {
  const own = Temporal.PlainYearMonth.from(month);
  const first = own.toPlainDate({ day: 1 });
  const { timeZone, excluded } = schedule.calendar;
  const running = schedule.steps.filter((step) => step.attention !== null);
  const weeks: MonthDay[][] = [];
  for (
    let monday = first.subtract({ days: first.dayOfWeek - 1 });
    Temporal.PlainDate.compare(monday, own.toPlainDate({ day: own.daysInMonth })) <= 0;
    monday = monday.add({ weeks: 1 })
  ) {
    weeks.push(
      Array.from({ length: 7 }, (_, n): MonthDay => {
        const date = monday.add({ days: n });
        const day = date.toString();
        const [from, to] = [
          date.toZonedDateTime({ timeZone }).epochMilliseconds,
          date.add({ days: 1 }).toZonedDateTime({ timeZone }).epochMilliseconds,
        ];
        return {
          day,
          number: date.day,
          inMonth: date.month === own.month,
          excluded: excluded.some((range) => range.from <= day && day <= range.to),
          steps: running
            .filter((step) => step.start < to && (step.end > from || step.start >= from))
            .map((scheduled) => ({ scheduled, begins: scheduled.start >= from, ends: scheduled.end <= to })),
          orders: schedule.orders.filter((order) => order.orderOn === day).flatMap((order) => order.drives),
          deliveries: schedule.orders
            .filter((order) => order.deliveredOn === day && order.orderOn !== day)
            .flatMap((order) => order.drives),
        };
      }),
    );
  }
  return weeks;
}
