"use client";

import { type Drive } from "@/core/document/plan";
import { bayOf } from "@/core/drives/drive";
import { MenuItem, MenuLine, SubMenu } from "../kit/Menu";
import { useWorkbench } from "./useWorkbench";
import { groupOfDrive, roleOfDrive } from "@/core/box/members";
import { driveInBay } from "@/core/box/bays";

/** What can be done with one drive. */
export function DriveMenuItems({ drive }: { drive: Drive }) {
  const { plan, act, edit, failed, toggleFailed, askNextDrive } = useWorkbench();
  const bay = bayOf(drive);
  const owner = groupOfDrive(plan, drive.id);
  const role = roleOfDrive(plan, drive.id);
  const bays = Array.from({ length: plan.box.bays }, (_, i) => i + 1).filter((number) => number !== bay);
  return (
    <>
      <SubMenu label="Move to">
        {bay !== null && (
          <MenuItem onSelect={() => act({ kind: "move-drive", drive: drive.id, to: { shelf: true } }, owner !== null)}>
            Shelf
          </MenuItem>
        )}
        {bays.map((number) => {
          const occupant = driveInBay(plan, number);
          return (
            <MenuItem
              key={number}
              onSelect={() => act({ kind: "move-drive", drive: drive.id, to: { bay: number } }, occupant !== null)}
            >
              Bay {number}
              <span className="text-[0.87rem] opacity-75">
                {occupant ? (bay === null ? "in place of its drive" : "change places") : "free"}
              </span>
            </MenuItem>
          );
        })}
      </SubMenu>
      {bay !== null && (
        <MenuItem onSelect={() => toggleFailed(drive.id)}>
          {failed.has(drive.id) ? "Whole again" : "What if it fails?"}
        </MenuItem>
      )}
      {owner && (
        <MenuItem onSelect={() => act({ kind: "leave-group", drives: [drive.id] }, true)}>
          Take out of {owner.pool.name}
        </MenuItem>
      )}
      {role && (
        <MenuItem onSelect={() => act({ kind: "leave-group", drives: [drive.id] }, true)}>
          No longer {role.role} of {role.pool.name}
        </MenuItem>
      )}
      {owner && (
        <MenuItem onSelect={() => askNextDrive({ kind: "replace", drive: drive.id })}>
          What if another drive were here…
        </MenuItem>
      )}
      {drive.toBuy && (
        <MenuItem onSelect={() => act({ kind: "edit-drive", drive: drive.id, changes: { toBuy: null } })}>
          It is bought
        </MenuItem>
      )}
      <MenuItem onSelect={() => edit(drive.id)}>Edit…</MenuItem>
      <MenuLine />
      <MenuItem onSelect={() => act({ kind: "remove-drives", drives: [drive.id] }, true)}>
        Remove from the plan
      </MenuItem>
    </>
  );
}
