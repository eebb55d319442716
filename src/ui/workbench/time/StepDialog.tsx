"use client";

import type { ReactNode } from "react";
import { largestVolume } from "@/core/box/capacities";
import { poolOf } from "@/core/box/find";
import { isFree } from "@/core/box/members";
import { formatBytes, formatExactBytes } from "@/core/bytes/formatBytes";
import { parseSize } from "@/core/bytes/parseSize";
import type { Drive, Plan, Step, StepChanges } from "@/core/document/plan";
import { nameOfDriveFirst } from "@/core/drives/nameOfDrive";
import { layoutOf } from "@/core/layouts/registry";
import { rulesOf } from "@/core/rules/ruleSets";
import { moduleOf } from "@/core/steps/registry";
import { Choice, TextField, Tick } from "../../kit/Field";
import { FormDialog, textOf } from "../../kit/FormDialog";
import { useUnit } from "../../preferences/preferences";

interface Props {
  step: Step;
  /** The box before the step. */
  before: Plan;
  onSave: (changes: StepChanges) => void;
  onClose: () => void;
}

/** The size that was typed for a volume; null for none; or what is wrong with it. */
function sizeFrom(text: string, asksSize: "optional" | "required"): { bytes: number | null } | string {
  if (text === "") return asksSize === "required" ? "Type the size that the volume is to have." : { bytes: null };
  const parsed = parseSize(text);
  return parsed.ok ? { bytes: parsed.size.bytes } : parsed.message;
}

/** The drives that were ticked, where they are others than before. */
function drivesFrom(data: FormData, step: Step): Pick<StepChanges, "drives"> {
  if (!("drives" in step)) return {};
  const drives = data.getAll("drives").map(String);
  const same = drives.length === step.drives.length && drives.every((id) => step.drives.includes(id));
  return same ? {} : { drives };
}

/** What of a step was changed in the form, or what is wrong with it. Of a field that is as it was, nothing is said. */
function changesFrom(data: FormData, step: Step, before: Plan): StepChanges | string {
  const text = (name: string) => textOf(data, name);
  const [size, by, layout, to, day] = [text("size"), text("by"), text("layout"), text("to"), text("notBefore")];
  const changes: StepChanges = drivesFrom(data, step);
  const { asksSize } = moduleOf(step);
  if (asksSize && size !== sizeText(step)) {
    const typed = sizeFrom(size, asksSize);
    if (typeof typed === "string") return typed;
    Object.assign(changes, typed);
  }
  if ("by" in step && by !== step.by) changes.by = by;
  if ("layout" in step && layout !== step.layout) changes.layout = layout as (typeof step)["layout"];
  if ("to" in step && to !== nameOfPlace(step.to, before)) changes.to = placeOf(to, before);
  if (day !== (step.notBefore ?? "")) changes.notBefore = day || null;
  return changes;
}

/** The size that a step gives a volume, as it stands in the field. */
const sizeText = (step: Step): string =>
  "bytes" in step && step.bytes !== undefined ? formatExactBytes(step.bytes).replace(/\u00a0B$/, "") : "";

/** Where data goes: the name of a backup of the plan, else what was typed. */
const nameOfPlace = (to: string, { backups }: Plan): string => backups?.find((backup) => backup.id === to)?.name ?? to;

/** A place as the plan keeps it: the backup of that name, where there is one. */
const placeOf = (name: string, { backups }: Plan): string => backups?.find((each) => each.name === name)?.id ?? name;

/** What of a step can be changed: its drives, its layout, its size, its destination, the day for which it waits. */
export function StepDialog({ step, before, onSave, onClose }: Props) {
  const save = (data: FormData): string | null => {
    const changes = changesFrom(data, step, before);
    if (typeof changes === "string") return changes;
    if (Object.keys(changes).length > 0) onSave(changes);
    return null;
  };
  return (
    <FormDialog title={`Edit: ${moduleOf(step).name}`} onSave={save} onClose={onClose}>
      {"by" in step && <ByField step={step} before={before} />}
      {"drives" in step && <DrivesField step={step} before={before} />}
      {"layout" in step && (
        <Choice
          label="Layout"
          name="layout"
          defaultValue={step.layout}
          options={rulesOf(before.box.rules).layouts.map((id) => ({ value: id, label: layoutOf(id).shortName }))}
        />
      )}
      {"volume" in step && <SizeField step={step} before={before} />}
      {"to" in step && <PlaceField to={step.to} before={before} />}
      <TextField
        label="Not before (a day; empty for as soon as it can be)"
        name="notBefore"
        type="date"
        defaultValue={step.notBefore ?? ""}
      />
    </FormDialog>
  );
}

type StepWith<K extends string> = Extract<Step, Record<K, unknown>>;

interface FieldProps<K extends string> {
  step: StepWith<K>;
  before: Plan;
}

/** Drives that a step can take: those that are free, and those that it has. */
const takeable = (before: Plan, has: (drive: Drive) => boolean): Drive[] =>
  before.drives.filter((drive) => isFree(before, drive.id) || has(drive));

function ByField({ step, before }: FieldProps<"by">) {
  const [unit] = useUnit();
  const drives = takeable(before, (drive) => drive.id === step.by);
  return (
    <Choice
      label="By which drive"
      name="by"
      defaultValue={step.by}
      options={drives.map((drive) => ({ value: drive.id, label: nameOfDriveFirst(drive, unit) }))}
    />
  );
}

function DrivesField({ step, before }: FieldProps<"drives">) {
  const [unit] = useUnit();
  return (
    <fieldset className="sm:col-span-2">
      <legend className="text-[0.9rem] text-soft">Which drives</legend>
      {takeable(before, (drive) => step.drives.includes(drive.id)).map((drive) => (
        <Tick key={drive.id} name="drives" value={drive.id} defaultChecked={step.drives.includes(drive.id)}>
          {nameOfDriveFirst(drive, unit)}
        </Tick>
      ))}
    </fieldset>
  );
}

/** The size of a volume after a step, and how large it could be. */
function SizeField({ step, before }: FieldProps<"volume">): ReactNode {
  const [unit] = useUnit();
  const { asksSize } = moduleOf(step);
  if (!asksSize) return null;
  const pool = poolOf(before, step.pool);
  const most = pool ? largestVolume(before, pool, step.volume, rulesOf(before.box.rules)) : 0;
  return (
    <div>
      <TextField
        label="Size of the volume"
        name="size"
        defaultValue={sizeText(step)}
        placeholder={asksSize === "optional" ? "all that the pool has" : ""}
      />
      <p className="text-[0.87rem] text-soft">
        At most {formatBytes(most, unit)} ({formatExactBytes(most)}) at this moment.
        {asksSize === "optional" ? " Empty: all that the pool has then." : ""}
      </p>
    </div>
  );
}

function PlaceField({ to, before }: { to: string; before: Plan }) {
  const list = "places-of-backup";
  return (
    <>
      <TextField label="Where to" name="to" list={list} defaultValue={nameOfPlace(to, before)} maxLength={200} />
      <datalist id={list}>
        {(before.backups ?? []).map((backup) => (
          <option key={backup.id} value={backup.name} />
        ))}
      </datalist>
    </>
  );
}
