"use client";

import { useDraggable } from "@dnd-kit/core";
import { Ellipsis } from "lucide-react";
import { bayOf, type Drive } from "@/core/drives/drive";
import { driveInBay, groupOfDrive } from "@/core/document/plan";
import { nameOfDrive } from "@/core/drives/nameOfDrive";
import { DriveFace, careWords } from "../drives/DriveFace";
import { Menu, MenuItem, MenuLine, SubMenu } from "../kit/Menu";
import { useUnit } from "../preferences/preferences";
import { useWorkbench } from "./useWorkbench";

/** A drive that can be selected (press), moved (drag, or M and arrow keys), and has a menu. */
export function DriveChip({ drive, narrow = false }: { drive: Drive; narrow?: boolean }) {
  const { selected, toggleSelected, failed } = useWorkbench();
  const [unit] = useUnit();
  const { attributes, listeners, setNodeRef, isDragging } = useDraggable({ id: drive.id, attributes: { roleDescription: "drive" } });
  const on = selected.has(drive.id);
  const care = careWords(drive);
  const name = nameOfDrive(drive, unit).replace(/^the /, "");
  return (
    <div data-on={on} className={`group relative flex h-full min-h-11 items-stretch rounded border transition-colors ${on ? "border-indigo bg-indigo text-on-indigo" : "border-line-strong/50 bg-raised hover:border-ink"} ${isDragging ? "opacity-40" : ""}`}>
      <button
        ref={setNodeRef}
        {...attributes}
        {...listeners}
        role="button"
        aria-pressed={on}
        aria-label={`${name}${care ? `, ${care}` : ""}${failed.has(drive.id) ? ", failed in this what-if" : ""}`}
        onClick={() => toggleSelected(drive.id)}
        className={`min-w-0 flex-1 cursor-grab touch-manipulation rounded py-1 ${narrow ? "px-0.5" : "pr-6 pl-2"}`}
      >
        <DriveFace drive={drive} narrow={narrow} />
      </button>
      <div className={narrow ? "absolute right-0 bottom-0" : "absolute top-0.5 right-0.5"}>
        <DriveMenu drive={drive} name={name} />
      </div>
    </div>
  );
}

function DriveMenu({ drive, name }: { drive: Drive; name: string }) {
  const { plan, act, edit, failed, toggleFailed } = useWorkbench();
  const bay = bayOf(drive);
  const owner = groupOfDrive(plan, drive.id);
  const bays = Array.from({ length: plan.box.bays }, (_, i) => i + 1).filter((number) => number !== bay);
  return (
    <Menu
      align="end"
      trigger={
        <button type="button" aria-label={`More about the ${name}`} className="inline-flex size-6 items-center justify-center rounded hover:bg-wall hover:text-ink data-[state=open]:bg-wall data-[state=open]:text-ink">
          <Ellipsis size={15} aria-hidden />
        </button>
      }
    >
      <SubMenu label="Move to">
        {bay !== null && <MenuItem onSelect={() => act({ kind: "move-drive", drive: drive.id, to: { shelf: true } }, owner !== null)}>Shelf</MenuItem>}
        {bays.map((number) => {
          const occupant = driveInBay(plan, number);
          return (
            <MenuItem key={number} onSelect={() => act({ kind: "move-drive", drive: drive.id, to: { bay: number } }, occupant !== null)}>
              Bay {number}
              <span className="text-[0.87rem] opacity-75">{occupant ? (bay === null ? "in place of its drive" : "change places") : "free"}</span>
            </MenuItem>
          );
        })}
      </SubMenu>
      {bay !== null && <MenuItem onSelect={() => toggleFailed(drive.id)}>{failed.has(drive.id) ? "Whole again" : "What if it fails?"}</MenuItem>}
      {owner && <MenuItem onSelect={() => act({ kind: "leave-group", drives: [drive.id] }, true)}>Take out of {owner.pool.name}</MenuItem>}
      <MenuItem onSelect={() => edit(drive.id)}>Edit…</MenuItem>
      <MenuLine />
      <MenuItem onSelect={() => act({ kind: "remove-drives", drives: [drive.id] }, true)}>
        Remove from the plan
      </MenuItem>
    </Menu>
  );
}
