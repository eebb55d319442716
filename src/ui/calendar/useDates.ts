"use client";

import { useMemo } from "react";
import type { Schedule } from "@/core/schedule/schedulePlan";
import {
  demand,
  lateFindings,
  timesByCalendar,
  timesByHours,
  type Demand,
  type StepTimes,
} from "@/core/schedule/demand";
import { fillingFindings, mergedFindings } from "@/core/schedule/backupsFilling";
import type { Finding } from "@/core/findings/finding";
import { useLoaded } from "../kit/useLoaded";
import { today } from "../today";
import type { Walk } from "@/core/walk/moment";

const load = () => import("@/core/schedule/schedulePlan").then(({ schedulePlan }) => schedulePlan);

/** When the steps of a plan run, and what that means for the data. */
export interface Dates {
  /** Where the plan has a calendar, and once its arithmetic has been loaded. */
  schedule: Schedule | null;
  times: StepTimes[];
  demands: Demand[];
  /** That room comes too late, or that a backup fills up before the end, by step. */
  late: ReadonlyMap<string, Finding[]>;
  /** The plan's first day, as YYYY-MM-DD. */
  start: string;
  /** Tries once more to load the arithmetic of calendars, where that failed. */
  again: (() => void) | null;
}

/** The dates of a plan. The arithmetic of calendars is loaded when a plan first has one. */
export function useDates(walked: Walk): Dates {
  const { calendar } = walked.plan;
  const { value: scheduleOf, again } = useLoaded(load, calendar !== undefined);
  const dates = useMemo(() => {
    const schedule = calendar && scheduleOf ? scheduleOf(walked, calendar) : null;
    const times = schedule ? timesByCalendar(schedule) : timesByHours(walked);
    const demands = walked.plan.dataSets ? demand(walked, times) : [];
    const start = calendar?.start ?? today();
    const late = mergedFindings(
      lateFindings(demands, start, calendar?.deliveryDays ?? 0),
      fillingFindings(walked, times, start),
    );
    return { schedule, times, demands, late, start };
  }, [walked, calendar, scheduleOf]);
  return useMemo(() => ({ ...dates, again }), [dates, again]);
}
