"use client";

import { useMemo } from "react";
import { clockWords, monthWords, plainDayWords } from "@/core/time/dateWords";
import { monthView, type MonthDay } from "@/core/schedule/month";
import type { Schedule } from "@/core/schedule/schedulePlan";
import { shortSize } from "@/core/drives/nameOfDrive";
import { useMedia } from "../kit/useMedia";
import { useUnit } from "../preferences/preferences";
import { stepLabel } from "@/core/steps/stepLabel";
import { driveOf } from "@/core/box/find";
import type { Walk } from "@/core/walk/moment";

const DAYS = ["Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun"];

/** One month, with what is to be done on each day; a month is a page when it is printed. */
export function MonthTable({ month, dates, walked }: { month: string; dates: Schedule; walked: Walk }) {
  // Weeks before the plan begins have nothing to say.
  const weeks = useMemo(
    () => monthView(dates, month).filter((week) => (week.at(-1)?.day ?? "") >= dates.calendar.start),
    [dates, month],
  );
  const isNarrow = useMedia("(max-width: 39.99rem)");
  return (
    <section aria-label={monthWords(month)} className="print:break-inside-avoid">
      <h2 className="font-serif text-lg">{monthWords(month)}</h2>
      {isNarrow ? (
        <DayList days={weeks.flat()} dates={dates} walked={walked} />
      ) : (
        <table className="mt-1 w-full table-fixed border-collapse text-[0.85rem]">
          <thead>
            <tr>
              {DAYS.map((day) => (
                <th
                  key={day}
                  scope="col"
                  className="border-b border-line-strong px-1.5 pb-0.5 text-left font-normal text-soft"
                >
                  {day}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {weeks.map((week) => (
              <tr key={week[0]?.day}>
                {week.map((day) => (
                  <DayCell key={day.day} day={day} dates={dates} walked={walked} />
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}

/** A month where seven columns have no place: its days on which something is to be done, one under the other. */
function DayList({ days, dates, walked }: { days: readonly MonthDay[]; dates: Schedule; walked: Walk }) {
  const busy = days.filter(
    (day) => day.inMonth && (day.excluded || day.steps.length + day.orders.length + day.deliveries.length > 0),
  );
  return (
    <ol className="mt-1">
      {busy.map((day) => (
        <li key={day.day} className="grid grid-cols-[4.5rem_minmax(0,1fr)] gap-2 border-t border-line py-1.5">
          <span>
            <span aria-hidden="true">
              <span className="text-soft">{DAYS[days.indexOf(day) % DAYS.length]}</span>{" "}
              <span className="font-semibold">{day.number}</span>
            </span>
            <span className="sr-only">{plainDayWords(day.day)}</span>
          </span>
          <div className="min-w-0 text-[0.9rem]">
            {day.excluded && <span className="text-soft">away</span>}
            <DayEntries day={day} dates={dates} walked={walked} />
          </div>
        </li>
      ))}
    </ol>
  );
}

interface DayProps {
  day: MonthDay;
  dates: Schedule;
  walked: Walk;
}

function DayCell({ day, dates, walked }: DayProps) {
  return (
    <td
      className={
        `h-20 border border-line p-1 align-top ${day.inMonth ? "" : "bg-wall text-soft"} ` +
        (day.excluded ? "bg-wall" : "")
      }
    >
      <span aria-hidden="true" className={day.inMonth ? "font-semibold" : ""}>
        {day.number}
      </span>
      <span className="sr-only">{plainDayWords(day.day)}</span>
      {day.excluded && <span className="ml-1 text-soft">away</span>}
      {day.inMonth && <DayEntries day={day} dates={dates} walked={walked} />}
    </td>
  );
}

/** What is to be done on a day: orders, deliveries, and the steps that run on it. */
function DayEntries({ day, dates, walked }: DayProps) {
  const [unit] = useUnit();
  const zone = dates.calendar.timeZone;
  const size = (id: string) => {
    const drive = driveOf(walked.plan, id);
    return drive ? shortSize(drive, unit) : "a drive";
  };
  const listed = (ids: readonly string[]) =>
    [...new Set(ids.map(size))]
      .map((each) => {
        const count = ids.filter((id) => size(id) === each).length;
        return count === 1 ? each : `${count} × ${each}`;
      })
      .join(" + ");
  const label = (id: string) => {
    const index = walked.moments.findIndex((moment) => moment.after === id);
    const [moment, before] = [walked.moments[index], walked.moments[index - 1]];
    return {
      number: index,
      text: moment?.walked && before ? stepLabel(moment.walked.step, before.state.plan, unit) : "",
      bare: moment?.walked?.exposure.some((each) => each.redundancy <= 0) ?? false,
    };
  };
  return (
    <ul className="space-y-0.5">
      {day.orders.length > 0 && <li className="text-ochre-text">Order {listed(day.orders)}</li>}
      {day.deliveries.length > 0 && <li className="text-ochre-text">Delivery: {listed(day.deliveries)}</li>}
      {day.steps.map(({ scheduled, begins, ends }) => {
        const { number, text, bare } = label(scheduled.step);
        return (
          <li
            key={scheduled.step}
            className={
              "rounded-sm px-1 leading-tight [overflow-wrap:anywhere] " +
              (begins
                ? scheduled.attention === "box"
                  ? "bg-indigo text-on-indigo"
                  : "border border-indigo"
                : bare
                  ? "bg-geranium-ground text-geranium"
                  : "bg-copies text-ink")
            }
          >
            {begins
              ? `${clockWords(scheduled.start, zone)} ${number}. ${text}`
              : `${number}. ${ends ? `until ${clockWords(scheduled.end, zone)}` : "goes on"}`}
            {begins && bare && <span className="block">one more failed drive loses data</span>}
          </li>
        );
      })}
    </ul>
  );
}
