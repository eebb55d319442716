"use client";

import { useDraggable } from "@dnd-kit/core";
import { Ellipsis } from "lucide-react";
import { type Drive } from "@/core/document/plan";
import { nameOfDrive } from "@/core/drives/nameOfDrive";
import { DriveFace, careWords, markShown } from "../drives/DriveFace";
import { MenuButton } from "../kit/MenuButton";
import { useUnit } from "../preferences/preferences";
import { useWorkbench } from "./useWorkbench";
import { roleOfDrive } from "@/core/box/members";
import { part } from "../kit/part";

const DriveMenuItems = part(() => import("./DriveMenuItems").then((module) => module.DriveMenuItems), {
  needed: "this menu",
  meanwhile: "whatever is around",
});

/** A drive that can be selected (press), moved (drag, or M and arrow keys), and has a menu. */
export function DriveChip({ drive, narrow = false }: { drive: Drive; narrow?: boolean }) {
  const { plan, selected, toggleSelected, failed } = useWorkbench();
  const [unit] = useUnit();
  const { attributes, listeners, setNodeRef, isDragging } = useDraggable({
    id: drive.id,
    attributes: { roleDescription: "drive" },
  });
  const on = selected.has(drive.id);
  const care = careWords(drive);
  const role = roleOfDrive(plan, drive.id);
  const mark = markShown(drive);
  const name = `${nameOfDrive(drive, unit).replace(/^the /, "")}${role ? `, ${role.role} of ${role.pool.name}` : ""}`;
  return (
    <div
      data-on={on}
      data-carried={isDragging || undefined}
      className={
        "group @container relative flex h-full min-h-11 items-stretch rounded border transition-colors " +
        (on ? "border-indigo bg-indigo text-on-indigo" : "border-line-strong/50 bg-raised hover:border-ink") +
        " " +
        `${isDragging ? "opacity-40" : ""} ${narrow ? "flex-col" : ""}`
      }
    >
      <button
        ref={setNodeRef}
        {...attributes}
        {...listeners}
        role="button"
        data-drive={drive.id}
        aria-pressed={on}
        // What the card shows of it is in its name too.
        aria-label={`${name}${name.includes(mark) ? "" : `, ${mark}`}${drive.toBuy ? ", to buy" : ""}${care ? `, ${care}` : ""}${failed.has(drive.id) ? ", failed in this what-if" : ""}`}
        onClick={() => toggleSelected(drive.id)}
        className={`min-w-0 flex-1 cursor-grab touch-manipulation rounded ${narrow ? "px-0.5" : "py-1 pr-6 pl-1.5"}`}
      >
        <DriveFace drive={drive} narrow={narrow} role={role?.role} />
      </button>
      {/* A press in the middle of a narrow drive selects it too: its menu stands below. */}
      <div className={narrow ? "text-center leading-none" : "absolute top-0.5 right-0.5"}>
        <DriveMenu drive={drive} name={name} />
      </div>
    </div>
  );
}

function DriveMenu({ drive, name }: { drive: Drive; name: string }) {
  return (
    <MenuButton
      align="end"
      trigger={
        <button
          type="button"
          aria-label={`More about the ${name}`}
          className={
            "inline-flex size-[24px] items-center justify-center rounded hover:bg-wall hover:text-ink " +
            "data-[state=open]:bg-wall data-[state=open]:text-ink"
          }
        >
          <Ellipsis size={15} aria-hidden />
        </button>
      }
    >
      <DriveMenuItems drive={drive} />
    </MenuButton>
  );
}
