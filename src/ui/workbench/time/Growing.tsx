"use client";

import type { CSSProperties } from "react";
import { useStripHeight } from "../../preferences/preferences";
import { NoStepsYet } from "./NoStepsYet";
import { part } from "../../kit/part";
import { Unloaded } from "../../kit/Unloaded";

const TimeStrip = part(() => import("./TimeStrip").then((module) => module.TimeStrip), {
  meanwhile: <StepsToCome />,
});

/** Keeps the place of time until what there is to know of steps is loaded, so that nothing jumps. */
function StepsToCome() {
  const [height] = useStripHeight();
  return (
    <section
      aria-label="Time"
      aria-busy
      style={{ "--strip": `${height}px` } as CSSProperties}
      className="border-t border-line px-3 py-2 text-[0.93rem] md:h-[min(var(--strip),45dvh)] md:min-h-48"
    >
      <h2 id="steps-heading" className="font-serif text-lg">
        Growing
      </h2>
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
 * @param again tries once more to load what there is to know of steps, where that failed
 */
export function Growing({ steps, walked, again }: { steps: number; walked: boolean; again: (() => void) | null }) {
  if (steps === 0) return <NoStepsYet />;
  if (again) return <Unloaded what="the steps of this plan" onAgain={again} />;
  return walked ? <TimeStrip /> : <StepsToCome />;
}
