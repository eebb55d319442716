"use client";

import { Button } from "../kit/Button";
import type { Compared } from "./useComparison";

/** Why there is nothing to see yet: no drives, too many, or still weighing. */
export function CompareStatus({ drives, tooMany, job }: Compared) {
  return (
    <>
      {drives.length === 0 && (
        <p className="pt-6 text-soft">
          No drive is chosen. Choose the drives to compare layouts for; add drives on the workbench, also such as you
          only think of buying.
        </p>
      )}
      {tooMany && (
        <p className="pt-6 text-geranium">
          A box has at most 24 bays, and {drives.length} drives are chosen. Leave some out.
        </p>
      )}
      {job.progress !== null && (
        <p role="status" className="flex items-center gap-3 pt-4">
          <progress value={job.progress} className="accent-indigo" aria-label="Comparing" /> Comparing every way to
          group {drives.length} drives …
          <Button small onClick={job.cancel}>
            Stop
          </Button>
        </p>
      )}
      {job.cancelled && (
        <p className="flex items-center gap-3 pt-4">
          Stopped.{" "}
          <Button small onClick={job.again}>
            Compare
          </Button>
        </p>
      )}
      {job.trouble && (
        <p role="alert" className="pt-4 text-geranium">
          {job.trouble}
        </p>
      )}
    </>
  );
}
