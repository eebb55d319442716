"use client";

import { Button } from "../../kit/Button";
import { useWorkbench } from "../useWorkbench";

/** Where time will run once something is planned: how to begin. */
export function NoStepsYet() {
  const { plan, planning, setPlanning, askSequence } = useWorkbench();
  return (
    <section
      aria-label="Time"
      className="flex flex-wrap items-center gap-x-4 gap-y-1 border-t border-line px-4 py-2 text-[0.93rem]"
    >
      <h2 id="steps-heading" className="font-serif text-lg">
        Growing
      </h2>
      <Button small disabled={plan.drives.length === 0} onClick={() => askSequence()}>
        Ready-made steps
      </Button>
      <label className="flex min-h-[24px] items-center gap-2">
        <input
          type="checkbox"
          checked={planning}
          disabled={plan.pools.length === 0}
          onChange={(event) => setPlanning(event.target.checked)}
          className="accent-indigo"
        />
        Plan what I do next as a step
      </label>
      <span className="text-soft">
        {planning
          ? "Drop a larger drive onto a bay, a drive into a free bay, or choose another layout."
          : "The box above is as it is now."}
      </span>
    </section>
  );
}
