"use client";

import { useDroppable } from "@dnd-kit/core";
import { groupOfDrive } from "@/core/box/members";
import type { Drive } from "@/core/document/plan";
import { shortSize } from "@/core/drives/nameOfDrive";
import { useRoving } from "../kit/useRoving";
import { useUnit } from "../preferences/preferences";
import { bayTarget } from "./DragArea";
import { DriveChip } from "./DriveChip";
import type { Column } from "./terraces/geometry";
import { touchOf, type Touch } from "./touch";
import { useWorkbench } from "./useWorkbench";

/** Below this a drive's size, menu and serial do not fit beside one another, in CSS pixels. */
const NARROW = 90;
const isNarrow = (column: Column) => column.width < NARROW;

/** The bays under the terraces, each with its number and its drive. */
export function BayRow({ columns, width }: { columns: readonly Column[]; width: number }) {
  const list = useRoving<HTMLOListElement>("across");
  return (
    <ol
      ref={list}
      className={`relative shrink-0 ${columns.some(isNarrow) ? "h-[5.6rem]" : "h-[4.6rem]"}`}
      style={{ width }}
      aria-label="Bays"
    >
      {columns.map((column) => (
        <Bay key={column.bay} column={column} />
      ))}
    </ol>
  );
}

/** What the chosen step has done with a drive. */
function useTouch(id: string | null): Touch | null {
  const { walk, at } = useWorkbench();
  const [unit] = useUnit();
  return id === null ? null : touchOf(walk, at, id, unit);
}

/** The drive that is missing from an empty bay, and that a group still lacks. */
function useGap({ bay, drive }: Column): Drive | undefined {
  const { plan } = useWorkbench();
  if (drive) return undefined;
  return plan.drives.find((each) => each.lastBay === bay && each.state !== undefined && groupOfDrive(plan, each.id));
}

function Bay({ column }: { column: Column }) {
  const { setNodeRef, isOver } = useDroppable({ id: bayTarget(column.bay) });
  const narrow = isNarrow(column);
  const touch = useTouch(column.drive?.id ?? null);
  const gap = useGap(column);
  const [unit] = useUnit();
  return (
    <li ref={setNodeRef} className="absolute inset-y-0 flex flex-col" style={{ left: column.x, width: column.width }}>
      <span className="h-5 text-center text-[0.8rem] text-soft">
        {narrow ? column.bay : `Bay ${column.bay}`}
        {touch && (
          <span className={touch.word === "erased" ? "text-geranium" : "text-ochre-text"} title={touch.title}>
            {narrow ? " •" : ` ${touch.word}`}
          </span>
        )}
      </span>
      <div
        className={
          `min-h-0 flex-1 rounded ${isOver ? "ring-2 ring-indigo" : ""} ` +
          (column.drive
            ? ""
            : "flex items-center justify-center border border-dashed border-line-strong/70 text-[0.8rem] text-soft")
        }
      >
        {column.drive ? (
          <DriveChip drive={column.drive} narrow={narrow} />
        ) : gap ? (
          <span className="text-center leading-tight text-geranium">
            {narrow ? "gap" : `${shortSize(gap, unit)} missing`}
          </span>
        ) : narrow ? (
          ""
        ) : (
          "free"
        )}
      </div>
    </li>
  );
}
