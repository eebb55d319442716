"use client";

import { useId, useState, type FormEvent, type InputHTMLAttributes, type ReactNode } from "react";
import { formatExactBytes } from "@/core/bytes/formatBytes";
import { SECTORS } from "@/core/drives/sector";
import type { Sector } from "@/core/document/plan";
import { parseSize } from "@/core/bytes/parseSize";
import { driveBytes } from "@/core/drives/typedDrive";
import { Button } from "../kit/Button";
import { Dialog } from "../kit/Dialog";
import type { Bus, Drive, HealthState, Medium, DriveChanges } from "@/core/document/plan";

const FIELD = "mt-0.5 h-9 w-full rounded border border-line-strong/70 bg-raised px-2";

/** Everything that can be said of a drive, to be corrected by hand. */
export function DriveDialog({
  drive,
  onClose,
  onSave,
}: {
  drive: Drive;
  onClose: () => void;
  onSave: (changes: DriveChanges) => string | null;
}) {
  const [size, setSize] = useState(formatExactBytes(drive.bytes).replace(/\u00a0B$/, ""));
  const [medium, setMedium] = useState<Medium>(drive.medium);
  const [trouble, setTrouble] = useState<string | null>(null);
  const parsed = parseSize(size);
  const bytes = parsed.ok ? driveBytes(parsed.size, medium) : null;
  const form = useId();

  const onSubmit = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const data = new FormData(event.currentTarget);
    const text = (name: string) => String(data.get(name) ?? "").trim();
    if (!parsed.ok) return setTrouble(parsed.message);
    if (bytes === null || bytes < 1 || bytes > 1e15)
      return setTrouble("No drive is that large. Check the unit of the size.");
    const reallocated = Number(text("reallocated") || 0);
    const pending = Number(text("pending") || 0);
    const refused = onSave({
      label: text("label"),
      serial: text("serial") || null,
      model: text("model") || null,
      bytes,
      medium,
      bus: text("bus") as Bus,
      logicalSector: Number(text("logical")) as Sector,
      physicalSector: Number(text("physical")) as Sector,
      health: {
        ...drive.health,
        state: text("state") as HealthState,
        reallocatedSectors: reallocated,
        pendingSectors: pending,
      },
      purchased: text("purchased") || null,
      price: text("price") === "" ? null : Number(text("price").replace(",", ".")),
      partitionTable: text("table") === "none" ? null : (text("table") as "gpt" | "mbr"),
      toBuy: data.get("toBuy") === "on" ? true : null,
      shingled: data.get("shingled") === "on" ? true : null,
      contents:
        text("contents") === "none"
          ? null
          : drive.contents?.kind === text("contents")
            ? drive.contents
            : { kind: text("contents") as "data" },
    });
    setTrouble(refused);
    if (!refused) onClose();
  };

  return (
    <Dialog
      open
      onClose={onClose}
      title="Edit the drive"
      acts={
        <>
          <Button onClick={onClose}>Cancel</Button>
          <Button look="main" type="submit" form={form}>
            Save
          </Button>
        </>
      }
    >
      <form id={form} onSubmit={onSubmit} className="grid grid-cols-2 gap-x-4 gap-y-3">
        <Field label="Your name for it" name="label" defaultValue={drive.label} maxLength={120} />
        <Field label="Serial number" name="serial" defaultValue={drive.serial ?? ""} maxLength={200} />
        <Field label="Model" name="model" defaultValue={drive.model ?? ""} maxLength={200} />
        <div>
          <Field label="Size" name="size" value={size} onChange={(event) => setSize(event.target.value)} />
          <p className="mt-0.5 text-[0.82rem] text-soft">
            {bytes === null ? "Write it like 4 TB or 3.6 TiB." : formatExactBytes(bytes)}
          </p>
        </div>
        <Choice
          label="Kind"
          value={medium}
          onChange={(value) => setMedium(value as Medium)}
          options={[
            ["hdd", "Hard disk"],
            ["ssd", "Flash"],
          ]}
          name="medium"
        />
        <Choice
          label="Interface"
          name="bus"
          defaultValue={drive.bus}
          options={[
            ["sata", "SATA"],
            ["sas", "SAS"],
            ["nvme", "NVMe"],
            ["usb", "USB"],
          ]}
        />
        <Choice
          label="Logical sector"
          name="logical"
          defaultValue={String(drive.logicalSector)}
          options={SECTORS.map((each) => [String(each), `${each} B`])}
        />
        <Choice
          label="Physical sector"
          name="physical"
          defaultValue={String(drive.physicalSector)}
          options={SECTORS.map((each) => [String(each), `${each} B`])}
        />
        <Choice
          label="Health"
          name="state"
          defaultValue={drive.health.state}
          options={[
            ["good", "Good"],
            ["watch", "To watch"],
            ["failing", "Failing"],
          ]}
        />
        <Choice
          label="What is on it"
          name="contents"
          defaultValue={drive.contents?.kind ?? "none"}
          options={[
            ["none", "Nothing to keep"],
            ["data", "Data"],
            ["mounted", "Data in use"],
            ["system", "The running system"],
          ]}
        />
        <Field
          label="Reallocated sectors"
          name="reallocated"
          type="number"
          min={0}
          step={1}
          defaultValue={drive.health.reallocatedSectors ?? 0}
        />
        <Field
          label="Pending sectors"
          name="pending"
          type="number"
          min={0}
          step={1}
          defaultValue={drive.health.pendingSectors ?? 0}
        />
        <Field
          label="Bought (2024, 2024-05 or 2024-05-17)"
          name="purchased"
          defaultValue={drive.purchased ?? ""}
          pattern="[0-9]{4}(-[0-9]{2}(-[0-9]{2})?)?"
        />
        <Field
          label="Price"
          name="price"
          inputMode="decimal"
          defaultValue={drive.price ?? ""}
          pattern="[0-9]{1,6}([.,][0-9]{1,2})?"
        />
        <Choice
          label="Partition table"
          name="table"
          defaultValue={drive.partitionTable ?? "none"}
          options={[
            ["none", "None, or not known"],
            ["gpt", "GPT"],
            ["mbr", "MBR"],
          ]}
        />
        <label className="flex items-center gap-2">
          <input type="checkbox" name="toBuy" defaultChecked={drive.toBuy ?? false} className="accent-indigo" />
          Not owned yet: to be bought
        </label>
        <label className="flex items-center gap-2">
          <input type="checkbox" name="shingled" defaultChecked={drive.shingled ?? false} className="accent-indigo" />
          Shingled recording (SMR)
        </label>
        {trouble && (
          <p role="alert" className="col-span-2 text-geranium">
            {trouble}
          </p>
        )}
      </form>
    </Dialog>
  );
}

function Labelled({ label, children }: { label: string; children: (id: string) => ReactNode }) {
  const id = useId();
  return (
    <div>
      <label htmlFor={id} className="text-[0.9rem] text-soft">
        {label}
      </label>
      {children(id)}
    </div>
  );
}

function Field({ label, ...input }: InputHTMLAttributes<HTMLInputElement> & { label: string }) {
  return <Labelled label={label}>{(id) => <input id={id} className={FIELD} {...input} />}</Labelled>;
}

interface ChoiceProps {
  label: string;
  name: string;
  options: readonly (readonly string[])[];
  defaultValue?: string;
  value?: string;
  onChange?: (value: string) => void;
}

function Choice({ label, name, options, defaultValue, value, onChange }: ChoiceProps) {
  return (
    <Labelled label={label}>
      {(id) => (
        <select
          id={id}
          name={name}
          defaultValue={defaultValue}
          value={value}
          onChange={onChange ? (event) => onChange(event.target.value) : undefined}
          className={FIELD}
        >
          {options.map(([option, words]) => (
            <option key={option} value={option}>
              {words}
            </option>
          ))}
        </select>
      )}
    </Labelled>
  );
}
