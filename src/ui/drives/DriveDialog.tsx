"use client";

import { useState } from "react";
import { formatExactBytes } from "@/core/bytes/formatBytes";
import { parseSize } from "@/core/bytes/parseSize";
import type { Bus, Drive, DriveChanges, HealthState, Medium, Sector } from "@/core/document/plan";
import { SECTORS } from "@/core/drives/sector";
import { driveBytes } from "@/core/drives/typedDrive";
import { Choice, TextField, Tick } from "../kit/Field";
import type { Option } from "../kit/Select";
import { FormDialog } from "../kit/FormDialog";
import { isWrongIn, type Wrong, type WrongIn } from "../kit/wrong";
import { textOf } from "../kit/textOf";

const MEDIA: Option[] = [
  { value: "hdd", label: "Hard disk" },
  { value: "ssd", label: "Flash" },
];

const BUSES: Option[] = [
  { value: "sata", label: "SATA" },
  { value: "sas", label: "SAS" },
  { value: "nvme", label: "NVMe" },
  { value: "usb", label: "USB" },
];

const SECTOR_SIZES: Option[] = SECTORS.map((each) => ({ value: String(each), label: `${each} B` }));

const STATES: Option[] = [
  { value: "good", label: "Good" },
  { value: "watch", label: "Worn" },
  { value: "failing", label: "Failing" },
];

const CONTENTS: Option[] = [
  { value: "none", label: "Nothing to keep" },
  { value: "data", label: "Data" },
  { value: "mounted", label: "Data in use" },
  { value: "system", label: "The running system" },
];

const TABLES: Option[] = [
  { value: "none", label: "None, or not known" },
  { value: "gpt", label: "GPT" },
  { value: "mbr", label: "MBR" },
];

/** How many sectors were counted: none typed is none; null where it is no whole number. */
function countIn(data: FormData, name: string): number | null {
  const count = Number(textOf(data, name));
  return Number.isSafeInteger(count) && count >= 0 ? count : null;
}

/** What a drive's size means, once typed: its bytes, or what is wrong with it. */
function sizeFrom(text: string, medium: Medium): number | string {
  const parsed = parseSize(text);
  if (!parsed.ok) return parsed.message;
  const bytes = driveBytes(parsed.size, medium);
  return bytes >= 1 && bytes <= 1e15 ? bytes : "No drive is that large. Check the unit of the size.";
}

/** What is on the drive, keeping what is known of it where its kind stays. */
function contentsFrom(kind: string, drive: Drive): Drive["contents"] | null {
  if (kind === "none") return null;
  return drive.contents?.kind === kind ? drive.contents : { kind: kind as "data" };
}

/** What was typed of a drive, or what is wrong with it. */
function changesFrom(data: FormData, drive: Drive): DriveChanges | WrongIn {
  const text = (name: string) => textOf(data, name);
  const medium = text("medium") as Medium;
  const bytes = sizeFrom(text("size"), medium);
  if (typeof bytes === "string") return { field: "size", message: bytes };
  const [reallocated, pending] = [countIn(data, "reallocated"), countIn(data, "pending")];
  if (reallocated === null || pending === null)
    return {
      field: reallocated === null ? "reallocated" : "pending",
      message: "Sectors: type whole numbers, from 0.",
    };
  const purchased = text("purchased");
  if (!/^([0-9]{4}(-[0-9]{2}(-[0-9]{2})?)?)?$/.test(purchased))
    return { field: "purchased", message: "Bought: type a year, a month or a day, as 2024, 2024-05 or 2024-05-17." };
  const price = text("price").replace(",", ".");
  if (!/^([0-9]{1,6}(\.[0-9]{1,2})?)?$/.test(price))
    return { field: "price", message: "Price: type an amount, as 189 or 189.90." };
  return {
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
    purchased: purchased || null,
    price: price === "" ? null : Number(price),
    partitionTable: text("table") === "none" ? null : (text("table") as "gpt" | "mbr"),
    toBuy: data.get("toBuy") === "on" ? true : null,
    shingled: data.get("shingled") === "on" ? true : null,
    contents: contentsFrom(text("contents"), drive),
  };
}

interface Props {
  drive: Drive;
  onClose: () => void;
  /** Saves what changed; says why it cannot be, or nothing. */
  onSave: (changes: DriveChanges) => string | null;
}

/** Everything that can be said of a drive, to be corrected by hand. */
export function DriveDialog({ drive, onClose, onSave }: Props) {
  const save = (data: FormData): Wrong => {
    const changes = changesFrom(data, drive);
    return isWrongIn(changes) ? changes : onSave(changes);
  };
  return (
    <FormDialog title="Edit the drive" onSave={save} onClose={onClose}>
      <TextField label="Your name for it" name="label" defaultValue={drive.label} maxLength={120} />
      <TextField label="Serial number" name="serial" defaultValue={drive.serial} maxLength={200} />
      <TextField label="Model" name="model" defaultValue={drive.model} maxLength={200} />
      <SizeAndKind drive={drive} />
      <Choice label="Interface" name="bus" defaultValue={drive.bus} options={BUSES} />
      <Choice label="Logical sector" name="logical" defaultValue={String(drive.logicalSector)} options={SECTOR_SIZES} />
      <Choice
        label="Physical sector"
        name="physical"
        defaultValue={String(drive.physicalSector)}
        options={SECTOR_SIZES}
      />
      <Choice label="Health" name="state" defaultValue={drive.health.state} options={STATES} />
      <Choice label="What is on it" name="contents" defaultValue={drive.contents?.kind ?? "none"} options={CONTENTS} />
      <CountField label="Reallocated sectors" name="reallocated" count={drive.health.reallocatedSectors} />
      <CountField label="Pending sectors" name="pending" count={drive.health.pendingSectors} />
      <TextField label="Bought (2024, 2024-05 or 2024-05-17)" name="purchased" defaultValue={drive.purchased} />
      <TextField label="Price" name="price" inputMode="decimal" defaultValue={drive.price} />
      <Choice label="Partition table" name="table" defaultValue={drive.partitionTable ?? "none"} options={TABLES} />
      <Tick name="toBuy" defaultChecked={drive.toBuy} className="self-end pb-1.5">
        Not owned yet: to be bought
      </Tick>
      <Tick name="shingled" defaultChecked={drive.shingled}>
        Shingled recording (SMR)
      </Tick>
    </FormDialog>
  );
}

function CountField({ label, name, count = 0 }: { label: string; name: string; count?: number | undefined }) {
  return <TextField label={label} name={name} type="number" min={0} step={1} defaultValue={count} />;
}

/** The size as it is typed and the kind of drive, which together say how many bytes it has. */
function SizeAndKind({ drive }: { drive: Drive }) {
  const [size, setSize] = useState(formatExactBytes(drive.bytes).replace(/\u00a0B$/, ""));
  const [medium, setMedium] = useState<Medium>(drive.medium);
  const bytes = sizeFrom(size, medium);
  return (
    <>
      <div>
        <TextField label="Size" name="size" value={size} onChange={(event) => setSize(event.target.value)} />
        <p className="mt-0.5 text-[0.82rem] text-soft">
          {typeof bytes === "string" ? "Write it like 4 TB or 3.6 TiB." : formatExactBytes(bytes)}
        </p>
      </div>
      <Choice
        label="Kind"
        name="medium"
        value={medium}
        onPick={(value) => setMedium(value as Medium)}
        options={MEDIA}
      />
    </>
  );
}
