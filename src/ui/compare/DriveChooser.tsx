"use client";

import type { Plan } from "@/core/document/plan";
import { bayOf } from "@/core/drives/drive";
import { nameOfDrive, shortSize } from "@/core/drives/nameOfDrive";
import { needsCare } from "../drives/DriveFace";
import { Button } from "../kit/Button";
import { useUnit } from "../preferences/preferences";

/** The drives that are compared: each can be taken in or left out, and some sets at once. */
export function DriveChooser({
  plan,
  chosen,
  onChoose,
}: {
  plan: Plan;
  chosen: ReadonlySet<string>;
  onChoose: (ids: string[]) => void;
}) {
  const [unit] = useUnit();
  const toggle = (id: string) =>
    onChoose(
      plan.drives.map((drive) => drive.id).filter((each) => (each === id ? !chosen.has(each) : chosen.has(each))),
    );
  const drives = [...plan.drives].sort((a, b) => (bayOf(a) ?? 99) - (bayOf(b) ?? 99));
  return (
    <fieldset className="flex flex-wrap items-center gap-1.5">
      <legend className="float-left mr-2 text-soft">These drives</legend>
      {drives.map((drive) => {
        const on = chosen.has(drive.id);
        const bay = bayOf(drive);
        return (
          <button
            key={drive.id}
            type="button"
            aria-pressed={on}
            aria-label={nameOfDrive(drive, unit).replace(/^the /, "")}
            title={nameOfDrive(drive, unit).replace(/^the /, "")}
            onClick={() => toggle(drive.id)}
            className={`inline-flex h-8 items-center gap-1.5 rounded border px-2 text-[0.93rem] transition-colors ${on ? "border-indigo bg-indigo text-on-indigo" : "border-dashed border-line-strong/70 text-soft hover:border-ink"}`}
          >
            <span className="font-semibold">{shortSize(drive, unit)}</span>
            <span className={`text-[0.8rem] ${on ? "" : "text-soft"}`}>
              {bay === null ? (drive.toBuy ? "to buy" : "shelf") : `bay ${bay}`}
            </span>
            {needsCare(drive) && <span className="text-[0.8rem]">needs care</span>}
          </button>
        );
      })}
      <span className="ml-1 flex flex-wrap gap-1">
        <Button small look="quiet" onClick={() => onChoose(plan.drives.map((drive) => drive.id))}>
          All
        </Button>
        {plan.pools.map((pool) => (
          <Button
            key={pool.id}
            small
            look="quiet"
            onClick={() => onChoose(pool.groups.flatMap((group) => group.drives))}
          >
            {pool.name || "The pool"}
          </Button>
        ))}
      </span>
    </fieldset>
  );
}
