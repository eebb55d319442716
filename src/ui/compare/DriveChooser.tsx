"use client";

import { isGone } from "@/core/drives/driveState";
import type { Plan } from "@/core/document/plan";
import { bayOf } from "@/core/drives/drive";
import { inOrder } from "@/core/drives/inOrder";
import { markOfDrive, nameOfDrive, shortSize } from "@/core/drives/nameOfDrive";
import { careWords, needsCare } from "../drives/DriveFace";
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
  const drives = inOrder(plan.drives.filter((drive) => !isGone(drive)));
  return (
    <fieldset className="flex min-w-0 flex-wrap items-center gap-1.5">
      <legend className="float-left mr-2 text-soft">These drives</legend>
      {drives.map((drive) => {
        const on = chosen.has(drive.id);
        const bay = bayOf(drive);
        return (
          <button
            key={drive.id}
            type="button"
            aria-pressed={on}
            title={nameOfDrive(drive, unit).replace(/^the /, "")}
            onClick={() => toggle(drive.id)}
            className={
              "inline-flex h-8 items-center gap-1.5 rounded border px-2 text-[0.93rem] transition-colors " +
              (on
                ? "border-indigo bg-indigo text-on-indigo"
                : "border-dashed border-line-strong/70 text-soft hover:border-ink")
            }
          >
            <span className="font-semibold">{shortSize(drive, unit)}</span>
            <span className={`text-[0.8rem] ${on ? "" : "text-soft"}`}>
              {bay === null ? (drive.toBuy ? "to buy" : "shelf") : `bay ${bay}`}
            </span>
            {bay === null && <span className="text-[0.8rem]">{markOfDrive(drive)}</span>}
            {needsCare(drive) && <span className="text-[0.8rem]">{careWords(drive)}</span>}
            {bay !== null && <span className="sr-only">{markOfDrive(drive)}</span>}
          </button>
        );
      })}
      <span className="ml-1 flex min-w-0 flex-wrap gap-1">
        <Button small look="quiet" onClick={() => onChoose(drives.map((drive) => drive.id))}>
          All
        </Button>
        {plan.pools.map((pool) => (
          <Button
            key={pool.id}
            small
            look="quiet"
            onClick={() => onChoose(pool.groups.flatMap((group) => group.drives))}
            title={pool.name}
            className="max-w-48 shrink!"
          >
            <span className="truncate">{pool.name || "The pool"}</span>
          </Button>
        ))}
      </span>
    </fieldset>
  );
}
