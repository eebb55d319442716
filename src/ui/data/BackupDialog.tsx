"use client";

import { useState } from "react";
import { formatExactBytes } from "@/core/bytes/formatBytes";
import { parseSize } from "@/core/bytes/parseSize";
import type { Command } from "@/core/document/command";
import type { Backup, DataSet, Plan } from "@/core/document/plan";
import { nameOfDrive } from "@/core/drives/nameOfDrive";
import { Choice, TextField, Tick } from "../kit/Field";
import { FormDialog } from "../kit/FormDialog";
import { isWrongIn, type Wrong, type WrongIn } from "../kit/wrong";
import { textOf } from "../kit/textOf";
import { useUnit } from "../preferences/preferences";
import { today } from "../today";
import { isFree } from "@/core/box/members";

type NewBackup = Extract<Command, { kind: "put-backup" }>["backup"];

const KINDS = [
  { value: "box", label: "another box" },
  { value: "usb-drive", label: "a USB drive" },
  { value: "service", label: "a service" },
];

const PLACES = [
  { value: "elsewhere", label: "elsewhere" },
  { value: "here", label: "in the same place as the box" },
];

/** How much fits, where that is a question; or what is wrong with it. */
function sizeFrom(text: string): Pick<Backup, "bytes"> | WrongIn {
  const parsed = text === "" ? null : parseSize(text);
  if (parsed && !parsed.ok) return { field: "size", message: `How much fits: ${parsed.message}` };
  return parsed ? { bytes: parsed.size.bytes } : {};
}

/** Whether older states are kept, and what they take; or what is wrong with it. */
function versionsFrom(data: FormData): Pick<Backup, "keepsVersions" | "versionsShare"> | WrongIn {
  const keepsVersions = data.get("versions") !== null;
  const share = Number(textOf(data, "share").replace(",", ".")) / 100;
  if (!(share >= 0 && share <= 10))
    return { field: "share", message: "What older states take: type a percentage from 0 to 1000." };
  return { keepsVersions, ...(keepsVersions && share > 0 ? { versionsShare: share } : {}) };
}

/** The backup that was typed, or what is wrong with it. */
function backupFrom(data: FormData, kind: Backup["kind"], id: string | undefined): NewBackup | WrongIn {
  const name = textOf(data, "name");
  if (name === "") return { field: "name", message: "Give it a name by which you will know it at the box." };
  const size = sizeFrom(textOf(data, "size"));
  if (isWrongIn(size)) return size;
  const every = Number(textOf(data, "every"));
  if (!Number.isInteger(every) || every < 1 || every > 3660)
    return { field: "every", message: "How often: type whole days, from 1." };
  const versions = versionsFrom(data);
  if (isWrongIn(versions)) return versions;
  const verified = textOf(data, "verified");
  if (verified > today()) return { field: "verified", message: "The day on which it was tested has not come yet." };
  const drive = kind === "usb-drive" ? textOf(data, "drive") : "";
  return {
    ...(id === undefined ? {} : { id }),
    name: name.slice(0, 120),
    kind,
    place: textOf(data, "place") === "elsewhere" ? "elsewhere" : "here",
    ...size,
    everyDays: every,
    ...versions,
    ...(verified === "" ? {} : { lastVerified: verified }),
    dataSets: data.getAll("sets").map(String),
    ...(drive === "" ? {} : { drive }),
  };
}

interface Props {
  backup: Backup | null;
  plan: Plan;
  act: (command: Command, offersUndo?: boolean) => string | null;
  onClose: () => void;
}

/** A place where data is kept a second time: what it holds, how much fits, how often, when it was last found whole. */
export function BackupDialog({ backup, plan, act, onClose }: Props) {
  const [unit] = useUnit();
  const [kind, setKind] = useState<Backup["kind"]>(backup?.kind ?? "box");
  const free = plan.drives.filter((drive) => isFree(plan, drive.id));
  const save = (data: FormData): Wrong => {
    const typed = backupFrom(data, kind, backup?.id);
    return isWrongIn(typed) ? typed : act({ kind: "put-backup", backup: typed });
  };
  const before = fieldsOf(backup);
  return (
    <FormDialog
      title={backup ? "Change a backup" : "A backup"}
      about="A second place for your data, outside this box."
      onSave={save}
      onClose={onClose}
      {...(backup ? { onRemove: () => act({ kind: "remove-backup", backup: backup.id }, true) } : {})}
    >
      <TextField label="Name" name="name" defaultValue={before.name} maxLength={120} placeholder="Box at home" />
      <Choice label="What it is" value={kind} options={KINDS} onPick={(value) => setKind(value as Backup["kind"])} />
      <Choice label="Where it is" name="place" defaultValue={before.place} options={PLACES} />
      <TextField
        label="How much fits (leave empty if there is plenty)"
        name="size"
        defaultValue={before.size}
        placeholder="12 TB"
      />
      {kind === "usb-drive" && free.length > 0 && (
        <Choice
          label="Which drive of the plan it is"
          name="drive"
          defaultValue={before.drive}
          options={[
            { value: "", label: "none of them" },
            ...free.map((drive) => ({ value: drive.id, label: nameOfDrive(drive, unit).replace(/^the /, "") })),
          ]}
        />
      )}
      <TextField
        label="A copy every … days"
        name="every"
        type="number"
        min={1}
        max={3660}
        defaultValue={before.everyDays}
      />
      <TextField
        label="Last tested on (leave empty if never)"
        name="verified"
        type="date"
        max={today()}
        defaultValue={before.lastVerified}
      />
      <Tick name="versions" defaultChecked={before.keepsVersions} className="self-end pb-1.5">
        keeps older states of files
      </Tick>
      <TextField
        label="Older states, if kept, add (in %)"
        name="share"
        inputMode="decimal"
        defaultValue={before.share}
      />
      <HeldSets backup={backup} sets={plan.dataSets ?? []} />
    </FormDialog>
  );
}

/** What the fields show first: of the backup that is changed, or what is usual. */
function fieldsOf(backup: Backup | null) {
  const { name, place, everyDays, keepsVersions, lastVerified = "", bytes, drive = "" } = backup ?? USUAL;
  const { versionsShare = 0 } = backup ?? { versionsShare: USUAL_VERSIONS };
  return {
    name,
    share: Math.round(versionsShare * 1000) / 10,
    place,
    everyDays,
    keepsVersions,
    lastVerified,
    size: bytes === undefined ? "" : formatExactBytes(bytes),
    drive,
  };
}

/** A fifth on top is an estimate for files that are changed now and then; the owner's box tells better. */
const USUAL_VERSIONS = 0.2;

const USUAL: Omit<Backup, "id" | "kind" | "dataSets"> = {
  name: "",
  place: "elsewhere",
  everyDays: 1,
  keepsVersions: false,
};

/** Which data it holds: a new one holds all of it. */
function HeldSets({ backup, sets }: { backup: Backup | null; sets: readonly DataSet[] }) {
  return (
    <fieldset className="sm:col-span-2">
      <legend className="text-[0.9rem] text-soft">What it holds</legend>
      {sets.length === 0 && <p className="text-soft">Say first what is stored.</p>}
      {sets.map((set) => (
        <Tick key={set.id} name="sets" value={set.id} defaultChecked={backup?.dataSets.includes(set.id) ?? true}>
          {set.name}
        </Tick>
      ))}
    </fieldset>
  );
}
