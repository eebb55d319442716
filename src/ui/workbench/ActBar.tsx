"use client";

import type { Act } from "@/core/steps/propose";
import { part } from "../kit/part";
import { Verdict } from "./readout/Verdict";
import { SelectionBar } from "./SelectionBar";

const PendingAct = part(() => import("./time/PendingAct").then((module) => module.PendingAct));

/**
 * What can be done with the selected drives, or a change that is to be planned. On a phone it stays in sight, with what
 * it comes to, while one acts on the box.
 */
export function ActBar({ pending, onDone }: { pending: Act | null; onDone: () => void }) {
  return (
    <div
      className={
        "max-md:sticky max-md:top-0 max-md:z-20 max-md:-mx-4 max-md:border-b max-md:border-line max-md:bg-ground " +
        "max-md:px-4 max-md:py-1"
      }
    >
      <Verdict />
      {pending ? <PendingAct key={JSON.stringify(pending)} act={pending} onDone={onDone} /> : <SelectionBar />}
    </div>
  );
}
