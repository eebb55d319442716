"use client";

import { MiB } from "@/core/bytes/bytes";
import { destinationOf } from "@/core/data/destination";
import { floorTo } from "@/core/bytes/floorTo";
import { layoutOf } from "@/core/layouts/registry";
import { shortSize } from "@/core/drives/nameOfDrive";
import { rulesOf } from "@/core/rules/ruleSets";
import { MenuItem, MenuLine, SubMenu } from "../../kit/Menu";
import { useUnit } from "../../preferences/preferences";
import { useWorkbench } from "../useWorkbench";
import type { StepBody } from "@/core/document/plan";
import { isFree } from "@/core/box/members";

/** Steps that are no act on the drives themselves, to be put in at the chosen moment. */
export function AddStepItems() {
  const { plan, insert } = useWorkbench();
  const [unit] = useUnit();
  const rules = rulesOf(plan.box.rules);
  const add = (...steps: StepBody[]) => insert(steps);
  const free = plan.drives.filter((drive) => isFree(plan, drive.id));
  const holders = free.filter((drive) => drive.contents?.kind === "data" || drive.contents?.kind === "mounted");
  return (
    <>
      {plan.pools.map((pool) => {
        const chunked = pool.groups.filter((group) => layoutOf(group.layout).chunked);
        return (
          <SubMenu key={pool.id} label={pool.name || "The pool"}>
            <MenuItem onSelect={() => add({ kind: "back-up", pool: pool.id, to: destinationOf(plan, pool) })}>
              Back up
            </MenuItem>
            <MenuItem onSelect={() => add({ kind: "verify", pool: pool.id })}>Verify (scrub)</MenuItem>
            {rules.parityWrites === "by-schedule" && (
              <MenuItem onSelect={() => add({ kind: "sync", pool: pool.id })}>Sync the parity</MenuItem>
            )}
            {pool.groups.map((group) => (
              <MenuItem
                key={group.id}
                onSelect={() =>
                  add(
                    ...(rules.claiming === "per-drive" && group.reach
                      ? Object.keys(group.reach).map((drive): StepBody => ({
                          kind: "claim-space",
                          group: group.id,
                          drive,
                        }))
                      : [{ kind: "claim-space", group: group.id } as StepBody]),
                  )
                }
              >
                Claim the space of larger drives
              </MenuItem>
            ))}
            {chunked.map((group) => (
              <MenuItem key={group.id} onSelect={() => add({ kind: "rebalance", group: group.id })}>
                Rebalance
              </MenuItem>
            ))}
            {pool.volumes.map((volume) => (
              <MenuItem key={volume.id} onSelect={() => add({ kind: "grow-volume", pool: pool.id, volume: volume.id })}>
                Grow {volume.name}
              </MenuItem>
            ))}
            {rules.shrinkVolumes &&
              pool.volumes.map((volume) => (
                <MenuItem
                  key={volume.id}
                  onSelect={() =>
                    add({
                      kind: "shrink-volume",
                      pool: pool.id,
                      volume: volume.id,
                      bytes: floorTo(volume.bytes * 0.99, MiB),
                    })
                  }
                >
                  Shrink {volume.name} by a hundredth
                </MenuItem>
              ))}
            {pool.volumes
              .filter((volume) => volume.fileSystem !== "none")
              .map((volume) => (
                <MenuItem
                  key={volume.id}
                  onSelect={() => add({ kind: "grow-file-system", pool: pool.id, volume: volume.id })}
                >
                  Grow the file system of {volume.name}
                </MenuItem>
              ))}
          </SubMenu>
        );
      })}
      <MenuLine />
      <SubMenu label="Test a drive">
        {plan.drives.map((drive) => (
          <MenuItem key={drive.id} onSelect={() => add({ kind: "test-drive", drive: drive.id })}>
            {shortSize(drive, unit)} {drive.serial ?? drive.label}
          </MenuItem>
        ))}
      </SubMenu>
      <SubMenu label="Wipe a drive">
        {free.length === 0 && <MenuItem disabled>No drive is free</MenuItem>}
        {free.map((drive) => (
          <MenuItem key={drive.id} onSelect={() => add({ kind: "wipe-drive", drive: drive.id })}>
            {shortSize(drive, unit)} {drive.serial ?? drive.label}
          </MenuItem>
        ))}
      </SubMenu>
      {holders.map((holder) => {
        const partner = free
          .filter((drive) => drive.id !== holder.id && drive.bytes >= holder.bytes)
          .sort((a, b) => a.bytes - b.bytes)[0];
        return partner ? (
          <MenuItem
            key={holder.id}
            onSelect={() =>
              add({
                kind: "mirror-drive",
                pool: `p-${holder.id}`,
                group: `g-${holder.id}`,
                name: holder.label || "Mirror",
                drive: holder.id,
                by: partner.id,
              })
            }
          >
            Mirror {shortSize(holder, unit)} with its data on {shortSize(partner, unit)}
          </MenuItem>
        ) : null;
      })}
    </>
  );
}
