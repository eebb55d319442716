"use client";

import Link from "next/link";
import { useState } from "react";
import type { Card } from "@/core/carrying/card";
import type { Command } from "@/core/document/command";
import { Button } from "../kit/Button";
import { TextField } from "../kit/Field";
import { useUnit } from "../preferences/preferences";
import { nowInstant } from "../reading/nowInstant";
import { say } from "../kit/say";

interface Props {
  card: Card;
  planHref: string;
  act: (command: Command, offersUndo?: boolean) => string | null;
}

const LINK = "inline-block py-1 font-semibold text-indigo underline underline-offset-2";

/** What to do when the box says something else than it should. */
export function Otherwise({ card, planHref, act }: Props) {
  const [unit] = useUnit();
  const [why, setWhy] = useState("");
  const stop = () => {
    const text = why.trim();
    const command = { kind: "stop-step", step: card.step.id, at: nowInstant(), unit } as const;
    if (act({ ...command, ...(text ? { why: text } : {}) }, true) !== null) return;
    setWhy("");
    say("It is recorded that this step has stopped. It stays in the plan.");
  };
  return (
    <details className="mt-5 border-t border-line pt-3">
      <summary className="cursor-pointer py-1 font-semibold">The box says something else</summary>
      <p className="mt-1">{card.otherwise}</p>
      <ul className="mt-1">
        <li>
          <Link href={`${planHref}/rescue`} className={LINK}>
            A drive has failed, or the pool is degraded: what to do now
          </Link>
        </li>
        <li>
          <Link href={`${planHref}/reading`} className={LINK}>
            Read the box, and set the plan to how it is
          </Link>
        </li>
        <li>
          <Link href={planHref} className={LINK}>
            Change the step, or take it out of the plan
          </Link>
        </li>
      </ul>
      <form
        className="mt-2 flex flex-wrap items-end gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          stop();
        }}
      >
        <div className="min-w-0 flex-1 basis-56">
          <TextField
            label="Why it stopped, or was refused"
            value={why}
            maxLength={200}
            onChange={(event) => setWhy(event.target.value)}
          />
        </div>
        <Button type="submit">Record that it has stopped</Button>
      </form>
    </details>
  );
}
