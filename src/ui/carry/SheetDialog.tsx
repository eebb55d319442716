"use client";

import { useState } from "react";
import type { Command } from "@/core/document/command";
import type { Plan } from "@/core/document/plan";
import { oneOrMany } from "@/core/words/counted";
import { MOST_SHEET_CHARACTERS, readSheet, type SheetStep } from "@/exchange/sheet/readSheet";
import { TextSource } from "../drives/TextSource";
import { Button } from "../kit/Button";
import { Dialog } from "../kit/Dialog";
import { useUnit } from "../preferences/preferences";

interface Props {
  plan: Plan;
  act: (command: Command, offersUndo?: boolean) => string | null;
  onSaid: (words: string) => void;
  onClose: () => void;
}

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
export function SheetDialog({ plan, act, onSaid, onClose }: Props) {
  const [unit] = useUnit();
  const [text, setText] = useState("");
  const [trouble, setTrouble] = useState<string | null>(null);
  const take = (given: string) => {
    const read = readSheet(given);
    if (!read.ok) return setTrouble(read.message);
    const { fresh, strange } = newOn(plan, read.steps);
    if (fresh.length === 0)
      return setTrouble(
        strange > 0
          ? `This sheet is of another plan${read.plan ? ` (${read.plan})` : ""}, or its steps are no longer in this one.`
          : "All that is on this sheet is recorded already.",
      );
    const refused = act({ kind: "record-steps", steps: fresh, unit }, true);
    if (refused !== null) return setTrouble(refused);
    const more = strange > 0 ? ` ${oneOrMany(strange, "One is", "are")} not in this plan.` : "";
    onSaid(`${oneOrMany(fresh.length, "One step was", "steps were")} recorded.${more}`);
    onClose();
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title="Bring a sheet back"
      about="Its times are recorded as if they had been noted here; one press undoes all of it."
      acts={
        <>
          <Button onClick={onClose}>Cancel</Button>
          <Button look="main" onClick={() => take(text)}>
            Record it
          </Button>
        </>
      }
    >
      <TextSource
        example="The line at the end of the sheet, or the file that it saves"
        label="The line of the sheet"
        placeholder='{"format":"cortijo-sheet", …}'
        accept=".json,.txt,application/json,text/plain"
        value={text}
        onChange={(next) => {
          setText(next);
          setTrouble(null);
        }}
        onFiles={take}
        most={MOST_SHEET_CHARACTERS}
        onTrouble={setTrouble}
      />
      {trouble && (
        <p role="alert" className="mt-2 text-geranium">
          {trouble}
        </p>
      )}
    </Dialog>
  );
}
