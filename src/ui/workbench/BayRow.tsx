"use client";

import { useDroppable } from "@dnd-kit/core";
import { formatBytes } from "@/core/bytes/formatBytes";
import { useUnit } from "../preferences/preferences";
import { bayTarget } from "./DragArea";
import { DriveChip } from "./DriveChip";
import type { Column } from "./terraces/geometry";
import { useWorkbench } from "./useWorkbench";

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

/** What the chosen step has done with a drive: read it, written it, erased it. */
function useTouch(id: string | null): { word: string; title: string } | null {
  const { walk, at } = useWorkbench();
  const [unit] = useUnit();
  const walked = walk.moments[at]?.walked;
  if (id === null || !walked?.done) return null;
  const work = walked.cost.work.find((each) => each.drive === id);
  const erased =
    walked.cost.erased.includes(id) && !walk.moments[at - 1]?.state.plan.drives.find((drive) => drive.id === id)?.toBuy;
  if (!work && !erased) return null;
  const title = work
    ? `${work.reads > 0 ? `${formatBytes(work.reads, unit)} read` : ""}${work.reads > 0 && work.writes > 0 ? ", " : ""}${work.writes > 0 ? `${formatBytes(work.writes, unit)} written` : ""}`
    : "";
  return {
    word: erased ? "erased" : work && work.writes > 0 ? (work.reads > 0 ? "rewritten" : "written") : "read",
    title,
  };
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
