"use client";

import { useRouter } from "next/navigation";
import { type Drive } from "@/core/document/plan";
import { bayOf } from "@/core/drives/drive";
import { MenuItem, MenuLine, SubMenu } from "../kit/Menu";
import { useWorkbench } from "./useWorkbench";
import { groupOfDrive, roleOfDrive } from "@/core/box/members";
import { driveInBay } from "@/core/box/bays";

/** What can be done with one drive. */
export function DriveMenuItems({ drive }: { drive: Drive }) {
  const { plan, at, act, edit, failed, toggleFailed, askNextDrive } = useWorkbench();
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
      {at === 0 && !drive.toBuy && <StateItems drive={drive} />}
      {bay !== null && !drive.state && (
        <MenuItem onSelect={() => toggleFailed(drive.id)}>
          {failed.has(drive.id) ? "Whole again" : "What if it fails?"}
        </MenuItem>
      )}
      {owner && (
        <MenuItem onSelect={() => act({ kind: "leave-group", drives: [drive.id] }, true)}>
          Remove from {owner.pool.name}
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

/** What has become of the drive, as a fact; and where to go then. */
function StateItems({ drive }: { drive: Drive }) {
  const { act, rescueHref } = useWorkbench();
  const router = useRouter();
  const say = (state: "failed" | "missing" | null) =>
    act({ kind: "set-drive-state", drives: [drive.id], state, since: new Date().toISOString() }, true);
  return (
    <>
      {drive.state ? (
        <MenuItem onSelect={() => say(null)}>It is back, with all that was on it</MenuItem>
      ) : (
        <>
          <MenuItem onSelect={() => say("failed")}>It has failed</MenuItem>
          <MenuItem onSelect={() => say("missing")}>It is not in the box</MenuItem>
        </>
      )}
      <MenuItem onSelect={() => router.push(`${rescueHref}?drive=${drive.id}`)}>What to do about it…</MenuItem>
    </>
  );
}
