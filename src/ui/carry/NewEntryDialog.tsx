"use client";

import { useMemo, useState } from "react";
import { worksOutside } from "@/core/carrying/worksOutside";
import type { Command } from "@/core/document/command";
import type { LogEntry, Plan } from "@/core/document/plan";
import { EVENT_WORDS, whatWords } from "@/core/logbook/logbookLines";
import { isWork, workKinds } from "@/core/logbook/recordedTime";
import { hoursWords } from "@/core/time/hoursWords";
import { Choice, TextField } from "../kit/Field";
import { FormDialog } from "../kit/FormDialog";
import type { Wrong } from "../kit/wrong";
import { useUnit } from "../preferences/preferences";
import { instantOf, localOf } from "./when";

interface Props {
  plan: Plan;
  act: (command: Command, offersUndo?: boolean) => string | null;
  onClose: () => void;
}

type What = LogEntry["what"];

const WHAT: readonly What[] = [
  ...workKinds,
  ...(Object.keys(EVENT_WORDS) as Exclude<What, (typeof workKinds)[number]>[]),
];

/** Something that happened outside the plan. */
export function NewEntryDialog({ plan, act, onClose }: Props) {
  const [unit] = useUnit();
  const [what, setWhat] = useState<What>("check");
  const [of, setOf] = useState("0");
  const [now] = useState(() => localOf(new Date().toISOString()));
  const works = useMemo(() => (isWork(what) ? worksOutside(plan, what, unit) : []), [plan, what, unit]);
  const work = works[Number(of)];
  const save = (data: FormData): Wrong => {
    const start = instantOf(String(data.get("start")));
    const given = String(data.get("end") ?? "");
    const end = given === "" ? undefined : instantOf(given);
    if (start === null || end === null)
      return { field: start === null ? "start" : "end", message: "Give a day and a time." };
    if (end !== undefined && Date.parse(end) < Date.parse(start))
      return { field: "end", message: "It would end before it begins." };
    const text = [work?.of, String(data.get("text") ?? "").trim()].filter(Boolean).join(": ");
    const entry: Omit<LogEntry, "id"> = {
      what,
      text: text.slice(0, 200),
      start,
      ...(end === undefined ? {} : { end }),
      ...(work ? { byRates: Math.round(work.byRates * 1000) / 1000, predicted: work.hours } : {}),
    };
    return act({ kind: "add-log-entries", entries: [entry] }, true);
  };
  return (
    <FormDialog
      title="Add an entry"
      about="Something that happened at the box, outside the plan."
      onSave={save}
      onClose={onClose}
    >
      <Choice
        label="What it was"
        value={what}
        options={WHAT.map((each) => ({ value: each, label: whatWords(each) }))}
        onPick={(value) => {
          setWhat(value as What);
          setOf("0");
        }}
      />
      {works.length > 0 && (
        <Choice
          label="Of what"
          value={of}
          options={works.map((each, i) => ({ value: String(i), label: each.of }))}
          onPick={setOf}
        />
      )}
      <TextField label="Begun" name="start" type="datetime-local" defaultValue={now} />
      <TextField label="Ended (can be left empty)" name="end" type="datetime-local" />
      <div className="sm:col-span-2">
        <TextField label="Words about it" name="text" maxLength={150} />
      </div>
      <p className="text-soft sm:col-span-2">
        {work
          ? `Expected: ${hoursWords(work.hours)}. With its end, its time counts for what is expected of the next.`
          : isWork(what)
            ? "What was expected of it is not known, so its time does not count for others."
            : ""}
      </p>
    </FormDialog>
  );
}
