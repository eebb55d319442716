"use client";

import { useId, useState } from "react";
import type { TypedAnswer as Typed } from "@/core/ruleBook/ruleEntry";
import { Button } from "../kit/Button";

interface Props {
  question: string;
  typed: Typed;
  /** The present answer, in the rule's own terms. */
  value: number | null;
  onChoose: (value: number) => void;
}

/** An answer that is none of those to choose from: a number in a unit. What cannot be is said, and stays as typed. */
export function TypedAnswer({ question, typed, value, onChoose }: Props) {
  const { unit, asValue, least = 0, most, whole } = typed;
  const shown = value === null ? "" : String(Number((value / asValue).toPrecision(6)));
  // What is being typed counts until the answer is another.
  const [draft, setDraft] = useState<{ text: string; of: number | null } | null>(null);
  const text = draft?.of === value ? draft.text : shown;
  const [wrong, setWrong] = useState(false);
  const problem = useId();
  return (
    <form
      noValidate
      className="mt-1 flex flex-wrap items-center gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        const number = Number(text.replace(",", "."));
        const fits = text.trim() !== "" && number >= least && number <= most;
        setWrong(!fits);
        if (!fits) return;
        setDraft(null);
        if (text !== shown) onChoose(whole ? Math.round(number * asValue) : number * asValue);
      }}
    >
      <label className="flex items-center gap-2">
        <span className="text-soft">Another</span>
        <input
          aria-label={`Another answer in ${unit}: ${question}`}
          aria-invalid={wrong || undefined}
          aria-describedby={wrong ? problem : undefined}
          inputMode="decimal"
          value={text}
          onChange={(event) => setDraft({ text: event.target.value, of: value })}
          className="h-8 w-24 rounded border border-line-strong/70 bg-raised px-2"
        />
        <span>{unit}</span>
      </label>
      <Button small type="submit">
        Take it
      </Button>
      {wrong && (
        <span id={problem} role="alert" className="text-geranium">
          Type a number of {unit} from {least} to {most}.
        </span>
      )}
    </form>
  );
}
