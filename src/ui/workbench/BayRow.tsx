"use client";

import { useDroppable } from "@dnd-kit/core";
import { useUnit } from "../preferences/preferences";
import { bayTarget } from "./DragArea";
import { DriveChip } from "./DriveChip";
import type { Column } from "./terraces/geometry";
import { touchOf, type Touch } from "./touch";
import { useWorkbench } from "./useWorkbench";

/** The bays under the terraces, each with its number and its drive. */
export function BayRow({ columns, width }: { columns: readonly Column[]; width: number }) {
  return (
    <ol className="relative h-[4.6rem] shrink-0" style={{ width }} aria-label="Bays">
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

function Bay({ column }: { column: Column }) {
  const { setNodeRef, isOver } = useDroppable({ id: bayTarget(column.bay) });
  const narrow = column.width < 76;
  const touch = useTouch(column.drive?.id ?? null);
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
        className={`min-h-0 flex-1 rounded ${isOver ? "ring-2 ring-indigo" : ""} ${column.drive ? "" : "flex items-center justify-center border border-dashed border-line-strong/70 text-[0.8rem] text-soft"}`}
      >
        {column.drive ? <DriveChip drive={column.drive} narrow={narrow} /> : narrow ? "" : "free"}
      </div>
    </li>
  );
}
