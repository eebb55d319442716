"use client";

import type { Command } from "@/core/document/command";
import type { LogbookLine } from "@/core/logbook/logbookLines";
import { TextField, Tick } from "../kit/Field";
import { FormDialog } from "../kit/FormDialog";
import type { Wrong } from "../kit/wrong";
import { instantOf, localOf } from "./when";

interface Props {
  line: LogbookLine;
  act: (command: Command, offersUndo?: boolean) => string | null;
  onClose: () => void;
}

/** Corrects the times of an entry, and whether it counts. */
export function EntryDialog({ line, act, onClose }: Props) {
  const save = (data: FormData): Wrong => {
    const start = instantOf(String(data.get("start")));
    const end = line.end === null ? undefined : instantOf(String(data.get("end")));
    if (start === null || end === null)
      return { field: start === null ? "start" : "end", message: "Give a day and a time." };
    const leftOut = line.work === null ? {} : { leftOut: data.get("counts") === null };
    const changes = { start, ...(end === undefined ? {} : { end }), ...leftOut };
    return act({ kind: "correct-record", record: line.id, changes }, true);
  };
  return (
    <FormDialog
      title={line.title}
      about={line.text || undefined}
      onSave={save}
      onRemove={() => act({ kind: "remove-records", records: [line.id] }, true)}
      onClose={onClose}
    >
      <TextField label="Begun" name="start" type="datetime-local" defaultValue={localOf(line.start)} />
      {line.end !== null && (
        <TextField label="Ended" name="end" type="datetime-local" defaultValue={localOf(line.end)} />
      )}
      {line.work !== null && (
        <Tick name="counts" defaultChecked={!line.leftOut} className="sm:col-span-2">
          Its time counts for what is expected of other work
        </Tick>
      )}
    </FormDialog>
  );
}
