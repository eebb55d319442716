"use client";

import { useState } from "react";
import { unprotectedOf, unprotectedWords } from "@/core/data/unprotected";
import type { Pool } from "@/core/document/plan";
import { Button } from "../../kit/Button";
import { part } from "../../kit/part";
import { useUnit } from "../../preferences/preferences";
import { useWorkbench } from "../useWorkbench";

const ScheduleDialog = part(() => import("./ScheduleDialog").then((module) => module.ScheduleDialog), {
  said: "over",
});

/** What the parity of a pool does not protect yet, where it is written by schedule; and the schedule itself. */
export function Schedule({ pool }: { pool: Pool }) {
  const { plan, at, act } = useWorkbench();
  const [unit] = useUnit();
  const [now] = useState(() => new Date().toISOString());
  const [open, setOpen] = useState(false);
  return (
    <div className="text-[0.95rem]">
      <p className="text-soft">
        {pool.paritySchedule?.paused ? "The schedule of the parity is paused. " : ""}
        {unprotectedWords(unprotectedOf(plan, pool, now), unit)}
      </p>
      {at === 0 && (
        <Button small className="mt-1" onClick={() => setOpen(true)}>
          Schedule of the parity
        </Button>
      )}
      {open && <ScheduleDialog pool={pool} act={act} onClose={() => setOpen(false)} />}
    </div>
  );
}
