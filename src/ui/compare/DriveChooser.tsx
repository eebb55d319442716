"use client";

import { ChevronDown } from "lucide-react";
import { formatBytes } from "@/core/bytes/formatBytes";
import { isGone } from "@/core/drives/driveState";
import type { Drive, Plan, Pool } from "@/core/document/plan";
import { bayOf } from "@/core/drives/drive";
import { inOrder } from "@/core/drives/inOrder";
import { markOfDrive, nameOfDrive, shortSize } from "@/core/drives/nameOfDrive";
import { careWords, needsCare } from "../drives/DriveFace";
import { Button } from "../kit/Button";
import { MenuItem } from "../kit/Menu";
import { MenuButton } from "../kit/MenuButton";
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
  const taken = drives.filter(({ id }) => chosen.has(id));
  const chooser = (
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
        <PoolsOf plan={plan} onChoose={onChoose} />
      </span>
    </fieldset>
  );
  if (drives.length <= MOST_SHOWN) return chooser;
  return (
    <details className="min-w-0">
      <summary className="min-h-[24px] cursor-pointer">
        <span className="text-soft">These drives:</span>{" "}
        <strong className="font-semibold">
          {taken.length} of {drives.length}, {formatBytes(total(taken), unit)} in all
        </strong>
      </summary>
      <div className="mt-1.5">{chooser}</div>
    </details>
  );
}

/** So many drives stand open; more are folded away, so that the layouts stay in sight. */
const MOST_SHOWN = 14;

/** So many pools have a button each. */
const MOST_POOLS = 4;

const total = (drives: readonly Drive[]) => drives.reduce((sum, { bytes }) => sum + bytes, 0);

/** Takes the drives of one pool, and no others. */
function PoolsOf({ plan, onChoose }: { plan: Plan; onChoose: (ids: string[]) => void }) {
  const take = (pool: Pool) => onChoose(pool.groups.flatMap((group) => group.drives));
  if (plan.pools.length > MOST_POOLS)
    return (
      <MenuButton
        trigger={
          <Button small look="quiet">
            Those of a pool <ChevronDown size={14} aria-hidden />
          </Button>
        }
      >
        {plan.pools.map((pool) => (
          <MenuItem key={pool.id} onSelect={() => take(pool)}>
            {pool.name || "The pool"}
          </MenuItem>
        ))}
      </MenuButton>
    );
  return plan.pools.map((pool) => (
    <Button key={pool.id} small look="quiet" onClick={() => take(pool)} title={pool.name} className="max-w-48 shrink!">
      <span className="truncate">{pool.name || "The pool"}</span>
    </Button>
  ));
}
