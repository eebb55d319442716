"use client";

import { useState } from "react";
import type { Card } from "@/core/carrying/card";
import type { Command } from "@/core/document/command";
import type { Plan, StepUnderWay } from "@/core/document/plan";
import { endOfWork } from "@/core/logbook/endOfWork";
import { ownTimesWords } from "@/core/logbook/ownTimes";
import { hoursWords, lengthWords } from "@/core/time/hoursWords";
import { useBoxNow } from "../boxClock";
import { Button } from "../kit/Button";
import { TextField } from "../kit/Field";
import { nowInstant } from "../reading/nowInstant";
import { Part } from "./Part";
import { WhenField } from "./WhenField";
import { whenWords } from "./when";
import { say } from "../kit/say";

interface Props {
  plan: Plan;
  card: Card;
  running: StepUnderWay;
  act: (command: Command, offersUndo?: boolean) => string | null;
}

const perCent = (share: number) => `${Math.round(share * 1000) / 10} %`;

/** A step that runs: when it ends, as far as one can tell, and how far it is. */
export function UnderWay({ plan, card, running, act }: Props) {
  const now = useBoxNow();
  return (
    <Part title="It is under way" step={card.step.id}>
      <Begun running={running} act={act} />
      {card.work && <End plan={plan} card={card} running={running} now={now} />}
      {card.work && <Progress running={running} act={act} />}
    </Part>
  );
}

function Begun({ running, act }: Pick<Props, "running" | "act">) {
  const [open, setOpen] = useState(false);
  const [trouble, setTrouble] = useState<string | null>(null);
  return (
    <div>
      <p>
        Begun {whenWords(running.start)}.{" "}
        <Button small look="quiet" aria-expanded={open} onClick={() => setOpen(!open)}>
          Correct
        </Button>
      </p>
      {open && (
        <WhenField
          label="It was begun"
          value={running.start}
          onChange={(start) => {
            if (start) setTrouble(act({ kind: "correct-record", record: running.step, changes: { start } }));
          }}
        />
      )}
      {trouble && (
        <p role="alert" className="text-geranium">
          {trouble}
        </p>
      )}
    </div>
  );
}

/** By what the end is expected. */
function basis(plan: Plan, card: Card, by: { share: number; at: string } | null): string {
  if (by) return `by ${perCent(by.share)} at ${whenWords(by.at)}`;
  return ownTimesWords(plan, card.work?.kind) ?? "by the usual rates";
}

function End({ plan, card, running, now }: Pick<Props, "plan" | "card" | "running"> & { now: number }) {
  const end = endOfWork(running, card.work?.hours ?? { low: 0, expected: 0, high: 0 });
  const over = (now - end.high) / 3_600_000;
  return (
    <p className="mt-1 text-[1.05rem]">
      Expected to end <span className="font-semibold">{whenWords(end.expected)}</span>, between {whenWords(end.low)} and{" "}
      {whenWords(end.high)} <span className="text-soft">({basis(plan, card, end.by)})</span>.
      {over > 0 && (
        <span className="mt-1 block font-semibold">
          That is past by {lengthWords(over).replace("about ", "")}. See what the box shows, and note how far it is.
        </span>
      )}
    </p>
  );
}

function Progress({ running, act }: Pick<Props, "running" | "act">) {
  const [share, setShare] = useState("");
  const [at, setAt] = useState<string | null>(null);
  const [round, setRound] = useState(0);
  const [trouble, setTrouble] = useState<string | null>(null);
  const note = () => {
    const value = Number(share.replace(",", ".").replace("%", ""));
    if (share.trim() === "" || !(value >= 0 && value <= 100))
      return setTrouble("Type how far it is, from 0 to 100, as the box shows it.");
    const refused = act({ kind: "take-progress", step: running.step, at: at ?? nowInstant(), share: value / 100 });
    setTrouble(refused);
    if (refused !== null) return;
    say(`Noted: ${value} %.`);
    setShare("");
    setAt(null);
    setRound(round + 1);
  };
  return (
    <form
      className="mt-2"
      onSubmit={(event) => {
        event.preventDefault();
        note();
      }}
    >
      <div className="flex flex-wrap items-end gap-2">
        <div className="w-36">
          <TextField
            label="How far it is, in %"
            inputMode="decimal"
            autoComplete="off"
            value={share}
            aria-invalid={trouble !== null}
            onChange={(event) => setShare(event.target.value)}
          />
        </div>
        <Button type="submit" className="h-9!">
          Note it
        </Button>
        <WhenField key={round} label="Seen" value={at} onChange={setAt} />
      </div>
      {trouble && (
        <p role="alert" className="text-geranium">
          {trouble}
        </p>
      )}
      {(running.readings ?? []).length > 0 && (
        <p className="mt-1 text-soft">
          {(running.readings ?? [])
            .slice(-3)
            .map(({ at: when, share: done }) => `${perCent(done)} at ${whenWords(when)}`)
            .join("; ")}
        </p>
      )}
    </form>
  );
}

/** How long a work takes, and by what that is known. */
export function HowLong({ plan, card }: Pick<Props, "plan" | "card">) {
  if (!card.work) return <p>A few minutes, with the acts above.</p>;
  return (
    <p>
      It takes {hoursWords(card.work.hours)}, {basis(plan, card, null)}.
    </p>
  );
}
