"use client";

import { useId, useState, type FormEvent } from "react";
import { formatBytes, formatExactBytes } from "@/core/bytes/formatBytes";
import { parseSize } from "@/core/bytes/parseSize";
import type { Plan, Step, StepChanges } from "@/core/document/plan";
import { nameOfDriveFirst } from "@/core/drives/nameOfDrive";
import { layoutOf } from "@/core/layouts/registry";
import { rulesOf } from "@/core/rules/ruleSets";
import { moduleOf } from "@/core/steps/registry";
import { Button } from "../../kit/Button";
import { Dialog } from "../../kit/Dialog";
import { useUnit } from "../../preferences/preferences";
import { isFree } from "@/core/box/members";
import { poolOf } from "@/core/box/find";
import { largestVolume } from "@/core/box/capacities";

const FIELD = "mt-0.5 h-9 w-full rounded border border-line-strong/70 bg-raised px-2";

/** What of a step can be changed: its drives, its layout, its size, its destination, the day for which it waits. */
export function StepDialog({
  step,
  before,
  onSave,
  onClose,
}: {
  step: Step;
  before: Plan;
  onSave: (changes: StepChanges) => void;
  onClose: () => void;
}) {
  const [unit] = useUnit();
  const form = useId();
  const list = useId();
  const [size, setSize] = useState(
    "bytes" in step && step.bytes !== undefined ? formatExactBytes(step.bytes).replace(/\u00a0B$/, "") : "",
  );
  const [changes, setChanges] = useState<StepChanges>({});
  const [trouble, setTrouble] = useState<string | null>(null);
  const { asksSize } = moduleOf(step);
  const rules = rulesOf(before.box.rules);
  const free = before.drives.filter((drive) => isFree(before, drive.id) || ("by" in step && drive.id === step.by));
  const many = "drives" in step ? (changes.drives ?? step.drives) : [];
  const pool = "volume" in step ? poolOf(before, step.pool) : undefined;
  const most = pool && "volume" in step ? largestVolume(before, pool, step.volume, rules) : 0;
  const onSubmit = (event: FormEvent) => {
    event.preventDefault();
    let bytes: number | undefined;
    if (asksSize) {
      if (size.trim() === "" && asksSize === "required") return setTrouble("Type the size that the volume is to have.");
      if (size.trim() !== "") {
        const parsed = parseSize(size);
        if (!parsed.ok) return setTrouble(parsed.message);
        bytes = parsed.size.bytes;
      }
    }
    onSave(bytes === undefined ? changes : { ...changes, bytes });
    onClose();
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title={`Edit: ${moduleOf(step).name}`}
      acts={
        <>
          <Button onClick={onClose}>Cancel</Button>
          <Button look="main" type="submit" form={form}>
            Save
          </Button>
        </>
      }
    >
      <form id={form} onSubmit={onSubmit} className="space-y-3">
        {"by" in step && (
          <label className="block">
            <span className="text-[0.9rem] text-soft">By which drive</span>
            <select
              className={FIELD}
              defaultValue={step.by}
              onChange={(event) => setChanges({ ...changes, by: event.target.value })}
            >
              {free.map((drive) => (
                <option key={drive.id} value={drive.id}>
                  {nameOfDriveFirst(drive, unit)}
                </option>
              ))}
            </select>
          </label>
        )}
        {"drives" in step && (
          <fieldset>
            <legend className="text-[0.9rem] text-soft">Which drives</legend>
            {before.drives
              .filter((drive) => isFree(before, drive.id) || step.drives.includes(drive.id))
              .map((drive) => (
                <label key={drive.id} className="flex items-center gap-2 py-0.5">
                  <input
                    type="checkbox"
                    className="accent-indigo"
                    checked={many.includes(drive.id)}
                    onChange={(event) =>
                      setChanges({
                        ...changes,
                        drives: event.target.checked ? [...many, drive.id] : many.filter((id) => id !== drive.id),
                      })
                    }
                  />
                  {nameOfDriveFirst(drive, unit)}
                </label>
              ))}
          </fieldset>
        )}
        {"layout" in step && (
          <label className="block">
            <span className="text-[0.9rem] text-soft">Layout</span>
            <select
              className={FIELD}
              defaultValue={step.layout}
              onChange={(event) => setChanges({ ...changes, layout: event.target.value as (typeof step)["layout"] })}
            >
              {rules.layouts.map((id) => (
                <option key={id} value={id}>
                  {layoutOf(id).shortName}
                </option>
              ))}
            </select>
          </label>
        )}
        {asksSize && (
          <label className="block">
            <span className="text-[0.9rem] text-soft">Size of the volume</span>
            <input
              className={FIELD}
              value={size}
              placeholder={asksSize === "optional" ? "all that the pool has" : ""}
              onChange={(event) => setSize(event.target.value)}
            />
            <span className="text-[0.87rem] text-soft">
              At most {formatBytes(most, unit)} ({formatExactBytes(most)}) at this moment.
              {asksSize === "optional" ? " Empty: all that the pool has then." : ""}
            </span>
          </label>
        )}
        {"to" in step && (
          <label className="block">
            <span className="text-[0.9rem] text-soft">Where to</span>
            <input
              className={FIELD}
              list={list}
              defaultValue={before.backups?.find((backup) => backup.id === step.to)?.name ?? step.to}
              maxLength={200}
              onChange={(event) =>
                setChanges({
                  ...changes,
                  to: before.backups?.find((backup) => backup.name === event.target.value)?.id ?? event.target.value,
                })
              }
            />
            <datalist id={list}>
              {(before.backups ?? []).map((backup) => (
                <option key={backup.id} value={backup.name} />
              ))}
            </datalist>
          </label>
        )}
        <label className="block">
          <span className="text-[0.9rem] text-soft">Not before (a day; empty for as soon as it can be)</span>
          <input
            className={FIELD}
            type="date"
            defaultValue={step.notBefore ?? ""}
            onChange={(event) =>
              setChanges({ ...changes, notBefore: event.target.value === "" ? null : event.target.value })
            }
          />
        </label>
        {trouble && (
          <p role="alert" className="text-geranium">
            {trouble}
          </p>
        )}
      </form>
    </Dialog>
  );
}
