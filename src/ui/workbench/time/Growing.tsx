"use client";

import dynamic from "next/dynamic";
import { NoStepsYet } from "./NoStepsYet";

const TimeStrip = dynamic(() => import("./TimeStrip").then((module) => module.TimeStrip), {
  ssr: false,
  loading: StepsToCome,
});

/** Keeps the place of time until what there is to know of steps is loaded, so that nothing jumps. */
function StepsToCome() {
  return (
    <section aria-label="Time" aria-busy className="border-t border-line px-3 py-2 text-[0.93rem] md:h-48">
      <h2 className="font-serif text-lg">Growing</h2>
      <p role="status" className="text-soft">
        Going through the steps …
      </p>
    </section>
  );
}

/**
 * Time, under the box: the steps and their staircase, or how to begin.
 *
 * @param steps how many the plan has
 * @param walked whether it has been walked through them: until then nothing may stand here that invites to begin
 */
export function Growing({ steps, walked }: { steps: number; walked: boolean }) {
  if (steps === 0) return <NoStepsYet />;
  return walked ? <TimeStrip /> : <StepsToCome />;
}
