"use client";

import { useMemo } from "react";
import type { Plan } from "@/core/document/plan";
import { momentWords, plainDayWords } from "@/core/time/dateWords";
import { walkPlan } from "@/core/walk/walkPlan";
import { useLoaded } from "../kit/useLoaded";
import { useUnit } from "../preferences/preferences";
import { today } from "../today";

const load = () => import("@/core/schedule/schedulePlan").then(({ schedulePlan }) => schedulePlan);

const WAITS = { day: "", delivery: ", once what it needs is delivered", hands: "" } as const;

/** When each step is to be begun, in words: by the plan's calendar, or by the day for which it waits. */
export function usePlanned(plan: Plan): (step: string) => string {
  const [unit] = useUnit();
  const { value: scheduleOf } = useLoaded(load, plan.calendar !== undefined);
  return useMemo(() => {
    const { calendar } = plan;
    const dates = calendar && scheduleOf ? scheduleOf(walkPlan(plan, unit, undefined, today()), calendar) : null;
    return (id) => {
      const dated = dates?.steps.find((each) => each.step === id);
      if (dated?.attention && calendar)
        return (
          "In the calendar for " +
          `${momentWords(dated.start, calendar.timeZone)}${dated.waitsFor ? WAITS[dated.waitsFor] : ""}.`
        );
      const notBefore = plan.steps.find((step) => step.id === id)?.notBefore;
      return notBefore ? `Planned not to begin before ${plainDayWords(notBefore)}.` : "";
    };
  }, [plan, scheduleOf, unit]);
}
