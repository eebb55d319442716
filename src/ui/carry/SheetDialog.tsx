"use client";

import type { Plan } from "@/core/document/plan";
import { oneOrMany } from "@/core/words/counted";
import { MOST_SHEET_CHARACTERS, readSheet, type SheetStep } from "@/exchange/sheet/readSheet";
import { TextDialog } from "../drives/TextDialog";
import { useUnit } from "../preferences/preferences";
import type { BringingProps } from "./LogbookCsvDialog";
import { say } from "../kit/say";

/** What of a sheet is new to the plan; an owner brings the same sheet back more than once. */
function newOn(plan: Plan, steps: readonly SheetStep[]) {
  const there = new Set(plan.steps.map(({ id }) => id));
  const done = new Set((plan.history ?? []).map(({ step, outcome }) => (outcome === "done" ? step : "")));
  const running = new Set((plan.underWay ?? []).map(({ step }) => step));
  const fresh = steps.filter(({ step, end }) => there.has(step) && !(running.has(step) && end === undefined));
  const strange = steps.filter(({ step }) => !there.has(step) && !done.has(step)).length;
  return { fresh, strange };
}

/** The times of a sheet brought back into the plan. */
export function SheetDialog({ plan, act, onClose }: BringingProps) {
  const [unit] = useUnit();
  const take = (given: string): readonly string[] => {
    const read = readSheet(given);
    if (!read.ok) return [read.message];
    const { fresh, strange } = newOn(plan, read.steps);
    if (fresh.length === 0)
      return [
        strange > 0
          ? `This sheet is of another plan${read.plan ? ` (${read.plan})` : ""}, or its steps are no longer in ` +
            "this one."
          : "All that is on this sheet is recorded already.",
      ];
    const refused = act({ kind: "record-steps", steps: fresh, unit }, true);
    if (refused !== null) return [refused];
    const more = strange > 0 ? ` ${oneOrMany(strange, "One is", "are")} not in this plan.` : "";
    say(`${oneOrMany(fresh.length, "One step was", "steps were")} recorded.${more}`);
    return [];
  };
  return (
    <TextDialog
      title="Bring a sheet back"
      about={
        "The line at the end of the sheet, or the file that it saves. Its times are recorded as if they had been noted " +
        "here; one press undoes all of it."
      }
      source={{
        example: '{"format":"cortijo-sheet","version":1,"steps":[…]}',
        label: "The line of the sheet",
        placeholder: '{"format":"cortijo-sheet", …}',
      }}
      accept=".json,.txt,application/json,text/plain"
      most={MOST_SHEET_CHARACTERS}
      takeLabel="Record it"
      onTake={take}
      onClose={onClose}
    />
  );
}
