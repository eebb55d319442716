"use client";

import { useId, useMemo, useState, type ReactNode } from "react";
import { largestVolume } from "@/core/box/capacities";
import { poolOf } from "@/core/box/find";
import { isFree } from "@/core/box/members";
import { formatBytes, formatExactBytes } from "@/core/bytes/formatBytes";
import type { Drive, Plan, Step, StepChanges } from "@/core/document/plan";
import { inOrder } from "@/core/drives/inOrder";
import { nameOfDriveFirst } from "@/core/drives/nameOfDrive";
import { fullName } from "@/core/layouts/inText";
import { layoutOf } from "@/core/layouts/registry";
import { preference } from "@/core/ruleBook/howItGrows";
import { rulesOf } from "@/core/rules/ruleSets";
import { moduleOf } from "@/core/steps/registry";
import { Choice, TextField, Tick } from "../../kit/Field";
import { FormDialog } from "../../kit/FormDialog";
import type { Wrong } from "../../kit/wrong";
import { useUnit } from "../../preferences/preferences";
import { today } from "../../today";
import { useWorkbench } from "../useWorkbench";
import { editTrial } from "./actTrial";
import { TrialFindings } from "./TrialFindings";
import { nameOfPlace, sizeText, stepChangesFrom } from "./stepForm";

interface Props {
  step: Step;
  /** The box before the step. */
  before: Plan;
  /** Saves what changed; says why it cannot be, or nothing. */
  onSave: (changes: StepChanges) => string | null;
  onClose: () => void;
}

/** What of a step can be changed: its drives, its layout, its size, its destination, the day for which it waits. */
export function StepDialog({ step, before, onSave, onClose }: Props) {
  const { walk } = useWorkbench();
  const [draft, setDraft] = useState<StepChanges>({});
  const trial = useMemo(() => editTrial(walk, step.id, draft, today()), [walk, step.id, draft]);
  const save = (data: FormData): Wrong => {
    const changes = stepChangesFrom(data, step, before);
    // Of a step only a size can be typed wrong.
    if (typeof changes === "string") return { field: "size", message: changes };
    return Object.keys(changes).length > 0 ? onSave(changes) : null;
  };
  const draw = (data: FormData) => {
    const changes = stepChangesFrom(data, step, before);
    if (typeof changes !== "string") setDraft(changes);
  };
  return (
    <FormDialog title={`Edit: ${moduleOf(step).name}`} onSave={save} onChange={draw} onClose={onClose}>
      {"by" in step && <ByField step={step} before={before} />}
      {"drives" in step && <DrivesField step={step} before={before} />}
      {"layout" in step && (
        <Choice
          label="Layout"
          name="layout"
          defaultValue={step.layout}
          options={rulesOf(before.box.rules).layouts.map((id) => ({ value: id, label: fullName(layoutOf(id)) }))}
        />
      )}
      {"volume" in step && <SizeField step={step} before={before} />}
      {!("volume" in step) && moduleOf(step).asksSize && (
        <TextField label="Size of the file system" name="size" defaultValue={sizeText(step)} />
      )}
      {"to" in step && <PlaceField to={step.to} before={before} />}
      {moduleOf(step).paced && <PreferenceField step={step} before={before} />}
      <div className="sm:col-span-2">
        <TextField
          label="Not before (a day; empty for as soon as it can be)"
          name="notBefore"
          type="date"
          defaultValue={step.notBefore ?? ""}
        />
      </div>
      <div aria-live="polite" className="text-[0.93rem] sm:col-span-2">
        {trial.blocks.length > 0 && <p className="text-geranium">{trial.blocks[0]?.message}</p>}
        <TrialFindings {...trial} />
      </div>
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
  inOrder(before.drives.filter((drive) => isFree(before, drive.id) || has(drive)));

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

/** Whom the box favours while it does the step. */
function PreferenceField({ step, before }: { step: Step; before: Plan }) {
  const { answers } = preference;
  const ofBox = answers.find(({ value }) => value === rulesOf(before.box.rules).preference)?.label.toLowerCase();
  return (
    <Choice
      label="Whom the box favours meanwhile"
      name="preference"
      defaultValue={("preference" in step && step.preference) || ""}
      options={[
        { value: "", label: `As its rules say (${ofBox})` },
        ...answers.map(({ value, label }) => ({ value, label })),
      ]}
    />
  );
}

function PlaceField({ to, before }: { to: string; before: Plan }) {
  const list = useId();
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
