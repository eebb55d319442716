"use client";

import Link from "next/link";
import { OpenPlan } from "../shell/OpenPlan";
import { PlanFrame } from "../shell/PlanFrame";
import { Button } from "../kit/Button";
import { usualCalendar } from "./usualCalendar";
import { part } from "../kit/part";
import { usePlanId } from "../shell/usePlanId";

const CalendarView = part(() => import("./CalendarView").then((module) => module.CalendarView), {
  meanwhile: <p className="p-6 text-soft">Opening the calendar …</p>,
});

/** The plan in the calendar: when its steps are done, and by whose hours. */
export function CalendarPage() {
  const id = usePlanId();
  return (
    <OpenPlan id={id}>
      {(opened) => {
        const { plan } = opened.state.history;
        return (
          <PlanFrame opened={opened} place="calendar">
            {plan.calendar ? (
              <CalendarView
                plan={plan}
                calendar={plan.calendar}
                act={(command, offersUndo) => opened.session.do(command, offersUndo)}
                planHref={`/plan/${opened.id}`}
              />
            ) : (
              <main id="main" tabIndex={-1} className="min-w-0 flex-1 px-4 py-4 md:px-6">
                <h1 className="font-serif text-2xl">Calendar</h1>
                <p className="mt-3 max-w-xl">
                  Say on which day you begin and when you can be at the box. The hours of the plan then become dates: a
                  rebuild runs through the night, a swap waits for your Saturday.
                </p>
                <Button
                  look="main"
                  className="mt-4"
                  onClick={() => opened.session.do({ kind: "set-calendar", calendar: usualCalendar() })}
                >
                  Give this plan dates, from today
                </Button>
                {plan.steps.length === 0 && (
                  <p className="mt-4 text-soft">
                    No step is planned yet.{" "}
                    <Link href={`/plan/${opened.id}`} className="text-indigo underline underline-offset-4">
                      Plan some at the box
                    </Link>
                    , ready-made ones for instance.
                  </p>
                )}
              </main>
            )}
          </PlanFrame>
        );
      }}
    </OpenPlan>
  );
}
