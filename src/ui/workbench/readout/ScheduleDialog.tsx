"use client";

import type { Command } from "@/core/document/command";
import type { ParitySchedule, Pool } from "@/core/document/plan";
import { TextField, Tick } from "../../kit/Field";
import { FormDialog } from "../../kit/FormDialog";
import type { Wrong } from "../../kit/wrong";

interface Props {
  pool: Pool;
  act: (command: Command) => string | null;
  onClose: () => void;
}

/** A moment as a field of local time has it. */
function localOf(moment: string | undefined): string {
  if (moment === undefined) return "";
  const at = new Date(moment);
  return new Date(at.getTime() - at.getTimezoneOffset() * 60_000).toISOString().slice(0, 16);
}

const numberIn = (data: FormData, name: string): number | null => {
  const text = (data.get(name) as string).trim();
  return text === "" ? null : Number(text);
};

/** When the parity of a pool is written, when it last was, and what makes an update wait. */
export function ScheduleDialog({ pool, act, onClose }: Props) {
  const { everyHours = 24, lastUpdate, paused = false, deletedLimit } = pool.paritySchedule ?? {};
  const save = (data: FormData): Wrong => {
    const [hours, limit] = [numberIn(data, "every"), numberIn(data, "limit")];
    const at = data.get("last") as string;
    if (hours === null || !(hours > 0 && hours <= 8784))
      return { field: "every", message: "Say how many hours lie between two updates: 1 to 8,784." };
    if (limit !== null && !(Number.isInteger(limit) && limit >= 1 && limit <= 1e9))
      return { field: "limit", message: "The limit is a number of files, from 1. Leave it empty if there is none." };
    const schedule: ParitySchedule = {
      everyHours: hours,
      ...(at ? { lastUpdate: new Date(at).toISOString() } : {}),
      ...(data.get("paused") ? { paused: true } : {}),
      ...(limit === null ? {} : { deletedLimit: limit }),
    };
    return act({ kind: "set-parity-schedule", pool: pool.id, schedule });
  };
  return (
    <FormDialog
      title={`Schedule of the parity of ${pool.name || "this pool"}`}
      about="What is newer than the last update is not protected."
      onSave={save}
      onClose={onClose}
    >
      <TextField label="Hours between two updates" name="every" inputMode="decimal" defaultValue={String(everyHours)} />
      <TextField
        label="The last update ended (leave empty if you do not know)"
        name="last"
        type="datetime-local"
        defaultValue={localOf(lastUpdate)}
      />
      <TextField
        label="An update waits for you beyond so many deleted files (leave empty if none does)"
        name="limit"
        inputMode="numeric"
        defaultValue={deletedLimit === undefined ? "" : String(deletedLimit)}
      />
      <Tick name="paused" defaultChecked={paused}>
        It is paused
      </Tick>
    </FormDialog>
  );
}
