"use client";

import { useMemo } from "react";
import type { Card } from "@/core/carrying/card";
import { seenSize } from "@/core/carrying/seenSize";
import type { Command } from "@/core/document/command";
import type { Plan } from "@/core/document/plan";
import { Button } from "../kit/Button";
import { TextField } from "../kit/Field";
import { useUnit } from "../preferences/preferences";

interface Props {
  plan: Plan;
  card: Card;
  value: string;
  onChange: (typed: string) => void;
  act: (command: Command, offersUndo?: boolean) => string | null;
}

/** The size that the box shows, held against the prediction as it is typed. */
export function SeenField({ plan, card, value, onChange, act }: Props) {
  const [unit] = useUnit();
  const seen = useMemo(
    () => (value.trim() === "" ? null : seenSize(value, plan, card.step.id, unit)),
    [value, plan, card.step.id, unit],
  );
  if (!card.size) return null;
  return (
    <div className="mt-3">
      <p>
        The box should then show <span className="font-semibold">{card.size.shown}</span> for {card.size.of}
        {card.size.same ? ", as before" : ""}.
      </p>
      <div className="mt-1 w-52">
        <TextField
          label="What it shows (can be left empty)"
          value={value}
          maxLength={40}
          autoComplete="off"
          onChange={(event) => onChange(event.target.value)}
        />
      </div>
      <div role="status" className="mt-1 space-y-1">
        {seen && (
          <p
            className={
              seen.kind === "as-predicted" ? "text-green" : seen.kind === "differs" ? "font-semibold" : "text-soft"
            }
          >
            {seen.message}
          </p>
        )}
        {seen?.kind === "differs" && seen.explanations.length === 0 && (
          <p>Nothing that the plan knows of explains it. Read the box with “Box now” before you go on.</p>
        )}
        {seen?.kind === "differs" &&
          seen.explanations.map(({ message, mend }) => (
            <div key={message} className="border-l-4 border-ochre-text pl-3">
              <p>{message}</p>
              {mend && (
                <Button small className="mt-1" onClick={() => act(mend.command, true)}>
                  {mend.label}
                </Button>
              )}
            </div>
          ))}
      </div>
    </div>
  );
}
