"use client";

import { useState } from "react";
import type { Command } from "@/core/document/command";
import type { Plan } from "@/core/document/plan";
import { oneOrMany } from "@/core/words/counted";
import { LOGBOOK_COLUMNS, MOST_LOGBOOK_CHARACTERS, readLogbookCsv } from "@/exchange/logbook/logbookCsv";
import { TextSource } from "../drives/TextSource";
import { Button } from "../kit/Button";
import { Dialog } from "../kit/Dialog";
import { ProblemLines } from "../kit/ProblemLines";

interface Props {
  plan: Plan;
  act: (command: Command, offersUndo?: boolean) => string | null;
  onSaid: (words: string) => void;
  onClose: () => void;
}

/** Entries of another logbook, or of a table of one's own. */
export function LogbookCsvDialog({ plan, act, onSaid, onClose }: Props) {
  const [text, setText] = useState("");
  const [problems, setProblems] = useState<readonly string[]>([]);
  const take = (given: string) => {
    const read = readLogbookCsv(given, plan);
    if (!read.ok) return setProblems(read.problems);
    const { entries, known } = read;
    if (entries.length === 0) return setProblems(["All of these entries are in the logbook already."]);
    const refused = act({ kind: "add-log-entries", entries }, true);
    if (refused !== null) return setProblems([refused]);
    const more = known > 0 ? ` ${oneOrMany(known, "One was", "were")} there already.` : "";
    onSaid(`${oneOrMany(entries.length, "One entry was", "entries were")} added.${more}`);
    onClose();
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title="Bring in a logbook as CSV"
      about="The first line names the columns; start and what are needed. Times are in UTC, like 2026-11-28T09:05Z."
      acts={
        <>
          <Button onClick={onClose}>Cancel</Button>
          <Button look="main" onClick={() => take(text)}>
            Add its entries
          </Button>
        </>
      }
    >
      <TextSource
        example={LOGBOOK_COLUMNS.join(",")}
        label="The logbook as CSV"
        placeholder={"start,end,what,text,usual_hours\n2026-11-01T08:00Z,2026-11-01T21:30Z,check,Images,11.2"}
        accept=".csv,.txt,text/csv,text/plain"
        value={text}
        onChange={(next) => {
          setText(next);
          setProblems([]);
        }}
        onFiles={take}
        most={MOST_LOGBOOK_CHARACTERS}
        onTrouble={(message) => setProblems([message])}
      />
      {problems.length > 0 && <ProblemLines problems={problems} />}
    </Dialog>
  );
}
