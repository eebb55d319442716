"use client";

import { CalendarPlus, Printer } from "lucide-react";
import Link from "next/link";
import { useMemo } from "react";
import { dayWords } from "@/core/time/dateWords";
import { busyMonths } from "@/core/schedule/month";
import { schedulePlan } from "@/core/schedule/schedulePlan";
import type { Command } from "@/core/document/command";
import type { Plan, PlanCalendar } from "@/core/document/plan";
import { predict } from "@/core/prediction/predict";
import { walkPlan } from "@/core/walk/walkPlan";
import { calendarFile } from "@/exchange/calendarFile/calendarFile";
import { planFileName } from "@/exchange/exportPlan";
import { Button } from "../kit/Button";
import { LackingPools } from "../rescue/LackingPools";
import { useUnit } from "../preferences/preferences";
import { today } from "../today";
import { CalendarSettings } from "./CalendarSettings";
import { MonthTable } from "./MonthTable";
import { STUCK_WORDS } from "./stuckWords";
import { exportFile } from "../kit/exportFile";

interface Props {
  plan: Plan;
  calendar: PlanCalendar;
  act: (command: Command, offersUndo?: boolean) => string | null;
  planHref: string;
}

/** The months in which something is to be done, and what decides the dates. */
export function CalendarView({ plan, calendar, act, planHref }: Props) {
  const [unit] = useUnit();
  const walked = useMemo(() => walkPlan(plan, unit, undefined, today()), [plan, unit]);
  const dates = useMemo(() => schedulePlan(walked, calendar), [walked, calendar]);
  const ends = useMemo(
    () => (["low", "high"] as const).map((pace) => schedulePlan(walked, calendar, pace).end),
    [walked, calendar],
  );
  const months = useMemo(() => busyMonths(dates), [dates]);
  const pools = useMemo(() => predict(plan, unit).pools, [plan, unit]);
  const zone = calendar.timeZone;
  const exportIt = () => {
    exportFile(
      planFileName(plan.name).replace(/\.cortijo\.json$/, ".ics"),
      "text/calendar",
      calendarFile(walked, dates, Date.now()),
    );
  };
  const stuck = walked.moments.findIndex((moment) => moment.after !== null && moment.after === dates.stuck?.step);
  return (
    <main
      id="main"
      className="min-w-0 flex-1 overflow-y-auto px-4 py-4 md:px-6 print:overflow-visible print:p-0"
      tabIndex={-1}
    >
      <div className="flex flex-wrap items-center gap-2">
        <h1 className="flex-1 font-serif text-2xl">
          Calendar<span className="hidden print:inline"> of {plan.name}</span>
        </h1>
        <Button className="print:hidden" onClick={() => window.print()} disabled={months.length === 0}>
          <Printer size={16} aria-hidden /> Print the months
        </Button>
        <Button className="print:hidden" look="main" onClick={exportIt} disabled={months.length === 0}>
          <CalendarPlus size={16} aria-hidden /> Export for a calendar program
        </Button>
      </div>
      <LackingPools pools={pools} planHref={planHref} />
      {plan.steps.length > 0 && (
        <p className="mt-1">
          Done on <strong className="font-semibold">{dayWords(dates.end, zone)}</strong>, if all goes as is likely;
          between {dayWords(ends[0] ?? dates.end, zone)} and {dayWords(ends[1] ?? dates.end, zone)}.
        </p>
      )}
      {stuck > 0 && (
        <p role="alert" className="mt-1 text-geranium">
          Step {stuck}: {STUCK_WORDS[dates.stuck?.why ?? "no-hour"]}
        </p>
      )}
      <div className="mt-4 grid gap-x-8 gap-y-6 lg:grid-cols-[17rem_minmax(0,1fr)] print:block">
        <CalendarSettings key={calendar.id} calendar={calendar} act={act} />
        <div className="min-w-0 space-y-6">
          {months.length === 0 && (
            <p className="text-soft">
              Nothing is to be done yet.{" "}
              <Link href={planHref} className="text-indigo underline underline-offset-4">
                Plan some steps at the box
              </Link>
              .
            </p>
          )}
          {months.map((month) => (
            <MonthTable key={month} month={month} dates={dates} walked={walked} />
          ))}
          {months.length > 0 && (
            <p className="text-[0.9rem] text-soft print:hidden">
              Entries keep their identifiers: a later export updates those of an earlier one. Entries of steps that you
              have removed stay in your calendar program until you delete them there.
            </p>
          )}
        </div>
      </div>
    </main>
  );
}
