"use client";

import { useMemo } from "react";
import type { Schedule } from "@/core/schedule/schedulePlan";
import type { Demand } from "@/core/schedule/demand";
import { type StepTimes, timesByCalendar, timesByHours } from "@/core/schedule/stepTimes";
import type { Finding } from "@/core/findings/finding";
import { useLoaded } from "../kit/useLoaded";
import { today } from "../today";
import type { Walk } from "@/core/walk/moment";

const loadData = () => import("./dataOf").then(({ dataOf }) => dataOf);
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

const NOTHING: Pick<Dates, "demands" | "late"> = { demands: [], late: new Map() };

/**
 * The dates of a plan. The arithmetic of calendars is loaded when a plan first has one, and what is reckoned of data
 * when it first has some.
 */
export function useDates(walked: Walk): Dates {
  const { calendar, dataSets, backups } = walked.plan;
  const scheduling = useLoaded(load, calendar !== undefined);
  const reckoning = useLoaded(loadData, dataSets !== undefined || backups !== undefined);
  const [scheduleOf, dataOf] = [scheduling.value, reckoning.value];
  const again = scheduling.again ?? reckoning.again;
  const dates = useMemo(() => {
    const schedule = calendar && scheduleOf ? scheduleOf(walked, calendar) : null;
    const times = schedule ? timesByCalendar(schedule) : timesByHours(walked);
    const start = calendar?.start ?? today();
    return { schedule, times, start, ...(dataOf ? dataOf(walked, times, start) : NOTHING) };
  }, [walked, calendar, scheduleOf, dataOf]);
  return useMemo(() => ({ ...dates, again }), [dates, again]);
}
