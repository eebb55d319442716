"use client";

import type { Command } from "@/core/document/command";
import type { Plan } from "@/core/document/plan";
import { oneOrMany } from "@/core/words/counted";
import { LOGBOOK_COLUMNS, MOST_LOGBOOK_CHARACTERS, readLogbookCsv } from "@/exchange/logbook/logbookCsv";
import { TextDialog } from "../drives/TextDialog";
import { say } from "../kit/say";

export interface BringingProps {
  plan: Plan;
  act: (command: Command, offersUndo?: boolean) => string | null;
  onClose: () => void;
}

/** Entries of another logbook, or of a table of one's own. */
export function LogbookCsvDialog({ plan, act, onClose }: BringingProps) {
  const take = (given: string): readonly string[] => {
    const read = readLogbookCsv(given, plan);
    if (!read.ok) return read.problems;
    const { entries, known } = read;
    if (entries.length === 0) return ["All of these entries are in the logbook already."];
    const refused = act({ kind: "add-log-entries", entries }, true);
    if (refused !== null) return [refused];
    const more = known > 0 ? ` ${oneOrMany(known, "One was", "were")} there already.` : "";
    say(`${oneOrMany(entries.length, "One entry was", "entries were")} added.${more}`);
    return [];
  };
  return (
    <TextDialog
      title="Bring in a logbook as CSV"
      about="The first line names the columns; start and what are needed. Times are in UTC, like 2026-11-28T09:05Z."
      source={{
        example: LOGBOOK_COLUMNS.join(","),
        label: "The logbook as CSV",
        placeholder: "start,end,what,text,usual_hours\n2026-11-01T08:00Z,2026-11-01T21:30Z,check,Images,11.2",
      }}
      most={MOST_LOGBOOK_CHARACTERS}
      takeLabel="Add its entries"
      onTake={take}
      onClose={onClose}
    />
  );
}
