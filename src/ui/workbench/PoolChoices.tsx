"use client";

import { MenuHeading, MenuItem } from "../kit/Menu";
import { useWorkbench } from "./useWorkbench";

/** Where drives can be added: to the drives of a group, or to a pool as a further group. */
export function PoolChoices({ drives, onDone }: { drives: string[]; onDone: (refused: string | null) => void }) {
  const { plan, act } = useWorkbench();
  return (
    <>
      <MenuHeading>To the drives of a group</MenuHeading>
      {plan.pools.flatMap((pool) =>
        pool.groups.map((group) => (
          <MenuItem key={group.id} onSelect={() => onDone(act({ kind: "add-to-group", group: group.id, drives }))}>
            {pool.name}, {group.drives.length} drives
          </MenuItem>
        )),
      )}
      <MenuHeading>As a further group of the same layout</MenuHeading>
      {plan.pools.map((pool) => (
        <MenuItem key={pool.id} onSelect={() => onDone(act({ kind: "make-group", drives, layout: pool.groups[0]?.layout ?? "raid1", pool: pool.id }))}>
          {pool.name}
        </MenuItem>
      ))}
    </>
  );
}
