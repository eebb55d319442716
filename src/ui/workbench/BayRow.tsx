"use client";

import { useDroppable } from "@dnd-kit/core";
import { bayTarget } from "./DragArea";
import { DriveChip } from "./DriveChip";
import type { Column } from "./terraces/geometry";

/** The bays under the terraces, each with its number and its drive. */
export function BayRow({ columns, width }: { columns: readonly Column[]; width: number }) {
  return (
    <ol className="relative h-[4.6rem]" style={{ width }} aria-label="Bays">
      {columns.map((column) => (
        <Bay key={column.bay} column={column} />
      ))}
    </ol>
  );
}

function Bay({ column }: { column: Column }) {
  const { setNodeRef, isOver } = useDroppable({ id: bayTarget(column.bay) });
  const narrow = column.width < 76;
  return (
    <li ref={setNodeRef} className="absolute inset-y-0 flex flex-col" style={{ left: column.x, width: column.width }}>
      <span className="h-5 text-center text-[0.8rem] text-soft">{narrow ? column.bay : `Bay ${column.bay}`}</span>
      <div className={`min-h-0 flex-1 rounded ${isOver ? "ring-2 ring-indigo" : ""} ${column.drive ? "" : "flex items-center justify-center border border-dashed border-line-strong/70 text-[0.8rem] text-soft"}`}>
        {column.drive ? <DriveChip drive={column.drive} narrow={narrow} /> : narrow ? "" : "free"}
      </div>
    </li>
  );
}
