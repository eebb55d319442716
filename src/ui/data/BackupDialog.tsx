"use client";

import { useState } from "react";
import { formatExactBytes } from "@/core/bytes/formatBytes";
import { parseSize } from "@/core/bytes/parseSize";
import type { Command } from "@/core/document/command";
import type { Plan, Backup } from "@/core/document/plan";
import { nameOfDrive } from "@/core/drives/nameOfDrive";
import { FIELD, Labelled } from "../kit/Field";
import { FormDialog, textOf } from "../kit/FormDialog";
import { useUnit } from "../preferences/preferences";
import { today } from "../today";
import { isFree } from "@/core/box/members";

/** A place where data is kept a second time: what it holds, how much fits, how often, when it was last found whole. */
export function BackupDialog({
  backup,
  plan,
  act,
  onClose,
}: {
  backup: Backup | null;
  plan: Plan;
  act: (command: Command, offersUndo?: boolean) => string | null;
  onClose: () => void;
}) {
  const [unit] = useUnit();
  const [kind, setKind] = useState<Backup["kind"]>(backup?.kind ?? "box");
  const free = plan.drives.filter((drive) => isFree(plan, drive.id));
  const save = (data: FormData): string | null => {
    const name = textOf(data, "name");
    if (name === "") return "Give it a name by which you will know it at the box.";
    const size = textOf(data, "size") === "" ? null : parseSize(textOf(data, "size"));
    if (size && !size.ok) return `How much fits: ${size.message}`;
    const every = Number(textOf(data, "every"));
    if (!Number.isInteger(every) || every < 1 || every > 3660) return "How often: type whole days, from 1.";
    const verified = textOf(data, "verified");
    if (verified > today()) return "The day on which it was verified has not come yet.";
    const drive = kind === "usb-drive" ? textOf(data, "drive") : "";
    return act({
      kind: "put-backup",
      backup: {
        ...(backup ? { id: backup.id } : {}),
        name: name.slice(0, 120),
        kind,
        place: textOf(data, "place") === "elsewhere" ? "elsewhere" : "here",
        ...(size?.ok ? { bytes: size.size.bytes } : {}),
        everyDays: every,
        keepsVersions: data.get("versions") !== null,
        ...(verified === "" ? {} : { lastVerified: verified }),
        dataSets: data.getAll("sets").map(String),
        ...(drive === "" ? {} : { drive }),
      },
    });
  };
  return (
    <FormDialog
      title={backup ? "Change a backup" : "A backup"}
      about="A second place for your data, outside this box."
      onSave={save}
      onClose={onClose}
      {...(backup ? { onRemove: () => act({ kind: "remove-backup", backup: backup.id }, true) } : {})}
    >
      <Labelled label="Name">
        <input
          name="name"
          className={FIELD}
          defaultValue={backup?.name ?? ""}
          maxLength={120}
          placeholder="Box at home"
        />
      </Labelled>
      <Labelled label="What it is">
        <select className={FIELD} value={kind} onChange={(event) => setKind(event.target.value as Backup["kind"])}>
          <option value="box">another box</option>
          <option value="usb-drive">a USB drive</option>
          <option value="service">a service</option>
        </select>
      </Labelled>
      <Labelled label="Where it is">
        <select name="place" className={FIELD} defaultValue={backup?.place ?? "elsewhere"}>
          <option value="elsewhere">elsewhere</option>
          <option value="here">in the same place as the box</option>
        </select>
      </Labelled>
      <Labelled label="How much fits (empty if that is no question)">
        <input
          name="size"
          className={FIELD}
          defaultValue={backup?.bytes === undefined ? "" : formatExactBytes(backup.bytes)}
          placeholder="12 TB"
        />
      </Labelled>
      {kind === "usb-drive" && free.length > 0 && (
        <Labelled label="Which drive of the plan it is">
          <select name="drive" className={FIELD} defaultValue={backup?.drive ?? ""}>
            <option value="">none of them</option>
            {free.map((drive) => (
              <option key={drive.id} value={drive.id}>
                {nameOfDrive(drive, unit).replace(/^the /, "")}
              </option>
            ))}
          </select>
        </Labelled>
      )}
      <Labelled label="A copy every … days">
        <input name="every" className={FIELD} type="number" min={1} max={3660} defaultValue={backup?.everyDays ?? 1} />
      </Labelled>
      <Labelled label="Last found whole on (empty for never)">
        <input name="verified" className={FIELD} type="date" max={today()} defaultValue={backup?.lastVerified ?? ""} />
      </Labelled>
      <label className="flex items-center gap-2 self-end pb-1.5">
        <input
          type="checkbox"
          name="versions"
          className="accent-indigo"
          defaultChecked={backup?.keepsVersions ?? false}
        />
        keeps older states of files
      </label>
      <fieldset className="sm:col-span-2">
        <legend className="text-[0.9rem] text-soft">What it holds</legend>
        {(plan.dataSets ?? []).length === 0 && <p className="text-soft">Say first what is stored.</p>}
        {(plan.dataSets ?? []).map((set) => (
          <label key={set.id} className="flex items-center gap-2 py-px">
            <input
              type="checkbox"
              name="sets"
              value={set.id}
              className="accent-indigo"
              defaultChecked={backup ? backup.dataSets.includes(set.id) : true}
            />
            {set.name}
          </label>
        ))}
      </fieldset>
    </FormDialog>
  );
}
