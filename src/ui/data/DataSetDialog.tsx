"use client";

import { useState } from "react";
import { formatExactBytes } from "@/core/bytes/formatBytes";
import type { UnitFamily } from "@/core/bytes/formatBytes";
import { drivesWithData } from "@/core/data/stored";
import { nameOfDrive } from "@/core/drives/nameOfDrive";
import { parseSize } from "@/core/bytes/parseSize";
import type { Command } from "@/core/document/command";
import type { Plan, DataSet, Growth, Worth } from "@/core/document/plan";
import { Choice, TextField } from "../kit/Field";
import type { Option } from "../kit/Select";
import { FormDialog } from "../kit/FormDialog";
import { isWrongIn, type Wrong, type WrongIn } from "../kit/wrong";
import { useUnit } from "../preferences/preferences";
import { textOf } from "../kit/textOf";

const WORTHS: { value: Worth; label: string }[] = [
  { value: "precious", label: "cannot be had again: precious" },
  { value: "useful", label: "its loss would cost work" },
  { value: "replaceable", label: "can be had again" },
];

type GrowthKind = "none" | "month" | "year";

const GROWTHS: { value: GrowthKind; label: string }[] = [
  { value: "none", label: "does not grow" },
  { value: "month", label: "so much each month" },
  { value: "year", label: "percent each year" },
];

const kindOf = (growth: Growth | undefined): GrowthKind =>
  growth === undefined ? "none" : "bytesPerMonth" in growth ? "month" : "year";
const growthText = (growth: Growth | undefined): string =>
  growth === undefined
    ? ""
    : "bytesPerMonth" in growth
      ? formatExactBytes(growth.bytesPerMonth)
      : String(Math.round(growth.sharePerYear * 1e4) / 100);

/** The growth that was typed, or what is wrong with it. */
function growthFrom(kind: GrowthKind, text: string): Growth | undefined | string {
  if (kind === "none") return undefined;
  if (kind === "month") {
    const monthly = parseSize(text);
    return monthly.ok ? { bytesPerMonth: monthly.size.bytes } : monthly.message;
  }
  const share = Number(text.replace(",", ".").replace(/\s*%$/, ""));
  return text !== "" && share >= 0 && share <= 1000
    ? { sharePerYear: share / 100 }
    : "type percent a year, from 0 to 1000.";
}

/** Begins the value of a drive among the places; ids have no colon. */
const DRIVE = "drive:";

/** The volumes of a plan and its drives with data outside pools, by the names that tell them apart. */
const placeOptions = (plan: Plan, unit: UnitFamily): Option[] => [
  ...plan.pools.flatMap((pool) =>
    pool.volumes.map((volume) => ({
      value: volume.id,
      label: plan.pools.length > 1 || pool.volumes.length > 1 ? `${volume.name} (${pool.name})` : volume.name,
    })),
  ),
  ...drivesWithData(plan).map((drive) => ({ value: `${DRIVE}${drive.id}`, label: nameOfDrive(drive, unit) })),
];

type NewDataSet = Extract<Command, { kind: "put-data-set" }>["dataSet"];

/** The data set that was typed, or what is wrong with it. */
function dataSetFrom(data: FormData, kind: GrowthKind, id: string | undefined): NewDataSet | WrongIn {
  const name = textOf(data, "name");
  if (name === "") return { field: "name", message: "Give it a name." };
  const size = parseSize(textOf(data, "size"));
  if (!size.ok) return { field: "size", message: `Size: ${size.message}` };
  const place = textOf(data, "place");
  const growth = growthFrom(kind, textOf(data, "growth"));
  if (typeof growth === "string") return { field: "growth", message: `Growth: ${growth}` };
  return {
    ...(id === undefined ? {} : { id }),
    name: name.slice(0, 120),
    ...(place.startsWith(DRIVE) ? { drive: place.slice(DRIVE.length) } : { volume: place }),
    bytes: size.size.bytes,
    worth: textOf(data, "worth") as Worth,
    ...(growth ? { growth } : {}),
  };
}

interface Props {
  set: DataSet | null;
  plan: Plan;
  act: (command: Command, offersUndo?: boolean) => string | null;
  onClose: () => void;
}

/** A data set: what it is, where it lies, how it grows, and whether it could be had again. */
export function DataSetDialog({ set, plan, act, onClose }: Props) {
  const [kind, setKind] = useState<GrowthKind>(kindOf(set?.growth));
  const [unit] = useUnit();
  const places = placeOptions(plan, unit);
  const placed = set?.drive === undefined ? set?.volume : `${DRIVE}${set.drive}`;
  const save = (data: FormData): Wrong => {
    const typed = dataSetFrom(data, kind, set?.id);
    return isWrongIn(typed) ? typed : act({ kind: "put-data-set", dataSet: typed });
  };
  return (
    <FormDialog
      title={set ? "Change data" : "Data that belongs together"}
      about="For instance photos, accounts, or camera footage."
      onSave={save}
      onClose={onClose}
      {...(set ? { onRemove: () => act({ kind: "remove-data-set", dataSet: set.id }, true) } : {})}
    >
      <TextField label="Name" name="name" defaultValue={set?.name} maxLength={120} />
      <Choice label="Where it is" name="place" defaultValue={placed ?? places[0]?.value} options={places} />
      <TextField
        label="Size today"
        name="size"
        defaultValue={set ? formatExactBytes(set.bytes) : ""}
        placeholder="3.2 TB"
      />
      <Choice label="If it were lost" name="worth" defaultValue={set?.worth ?? "useful"} options={WORTHS} />
      <GrowthFields growth={set?.growth} kind={kind} onKind={setKind} />
    </FormDialog>
  );
}

interface GrowthProps {
  growth: Growth | undefined;
  kind: GrowthKind;
  onKind: (kind: GrowthKind) => void;
}

/** Whether and how it grows, and by how much. */
function GrowthFields({ growth, kind, onKind }: GrowthProps) {
  const monthly = kind === "month";
  return (
    <>
      <Choice label="It grows" value={kind} options={GROWTHS} onPick={(value) => onKind(value as GrowthKind)} />
      {kind !== "none" && (
        <TextField
          key={kind}
          label={monthly ? "By how much each month" : "Percent each year"}
          name="growth"
          defaultValue={kind === kindOf(growth) ? growthText(growth) : ""}
          placeholder={monthly ? "220 GB" : "10"}
        />
      )}
    </>
  );
}
