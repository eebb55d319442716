"use client";

import type { Act } from "@/core/steps/propose";
import { part } from "../kit/part";
import { Verdict } from "./readout/Verdict";
import { SelectionBar } from "./SelectionBar";
import { useWorkbench } from "./useWorkbench";

const PendingAct = part(() => import("./time/PendingAct").then((module) => module.PendingAct));

/**
 * What can be done with the selected drives, or a change that is to be planned. On a phone it stays in sight, with what
 * it comes to, while one acts on the box; at the foot of the screen, wherever on the page that is begun.
 */
export function ActBar({ pending, onDone }: { pending: Act | null; onDone: () => void }) {
  const { selected, failed } = useWorkbench();
  const isActive = pending !== null || selected.size + failed.size > 0;
  return (
    <div data-acting={isActive || undefined} className="act-bar">
      <Verdict />
      {pending ? <PendingAct key={JSON.stringify(pending)} act={pending} onDone={onDone} /> : <SelectionBar />}
    </div>
  );
}
