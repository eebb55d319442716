"use client";

import { layoutOf } from "@/core/layouts/registry";
import type { Bytes } from "@/core/bytes/bytes";
import type { Group, Drive } from "@/core/document/plan";
import { chunkWidth } from "@/core/layouts/chunks";
import { nameOfDrive } from "@/core/drives/nameOfDrive";
import { rulesOf } from "@/core/rules/ruleSets";
import { plural } from "@/core/words/counted";
import { MenuItem, MenuLine, SubMenu } from "../kit/Menu";
import { useUnit } from "../preferences/preferences";
import { joiners } from "./plannedAs";
import { LayoutOptions } from "./LayoutOptions";
import { useWorkbench } from "./useWorkbench";

/** What can be done with a group: another layout, or taking it apart. */
export function GroupMenuItems({
  group,
  drives,
  usableBytes,
}: {
  group: Group;
  drives: readonly Drive[];
  usableBytes: Bytes;
}) {
  const { plan, act, planning, selected, explainLayouts } = useWorkbench();
  const pool = plan.pools.find((each) => each.groups.some((one) => one.id === group.id));
  const others = plan.pools.filter((each) => each.id !== pool?.id);
  const { data, parity } = chunkWidth(group.options ?? {});
  return (
    <>
      <LayoutOptions
        drives={drives}
        rules={rulesOf(plan.box.rules)}
        {...(planning
          ? {
              joining: (layout) =>
                layout === group.layout
                  ? []
                  : plan.drives.filter((drive) => joiners(plan, group, layout, selected).includes(drive.id)),
            }
          : {})}
        present={{ layout: group.layout, usableBytes }}
        onExplain={() => explainLayouts(group.drives, group.layout)}
        onChoose={(next) => act({ kind: "change-layout", group: group.id, layout: next })}
      />
      {layoutOf(group.layout).chooses === "stripe-width" && (
        <SubMenu label={`Width: ${data} data + ${parity} parity`}>
          {[
            [2, 1],
            [3, 1],
            [4, 1],
            [2, 2],
            [4, 2],
            [6, 2],
          ].map(([k = 2, m = 1]) => (
            <MenuItem
              key={`${k}+${m}`}
              onSelect={() =>
                act({ kind: "set-options", group: group.id, options: { ...group.options, data: k, parity: m } })
              }
            >
              {k} data + {m} parity
            </MenuItem>
          ))}
        </SubMenu>
      )}
      {layoutOf(group.layout).chooses === "pairs" && (
        <SubMenu label="Pairs">
          <MenuItem
            onSelect={() =>
              act({ kind: "set-options", group: group.id, options: { ...group.options, pairs: "by-size" } })
            }
          >
            By size
          </MenuItem>
          <MenuItem
            onSelect={() =>
              act({ kind: "set-options", group: group.id, options: { ...group.options, pairs: "as-named" } })
            }
          >
            Neighbours, in the order of the group
          </MenuItem>
        </SubMenu>
      )}
      {layoutOf(group.layout).chooses === "parity-drives" && <ParityDrives group={group} drives={drives} />}
      {pool && others.length > 0 && (
        <SubMenu label={pool.landsFor ? "Landing place" : "Make it a landing place"}>
          {others.map((other) => (
            <MenuItem key={other.id} onSelect={() => act({ kind: "set-landing", pool: pool.id, landsFor: other.id })}>
              {pool.landsFor === other.id ? "✓ " : ""}New data lands here for {other.name}
            </MenuItem>
          ))}
          {pool.landsFor && (
            <MenuItem onSelect={() => act({ kind: "set-landing", pool: pool.id, landsFor: null })}>
              No landing place
            </MenuItem>
          )}
        </SubMenu>
      )}
      <MenuLine />
      <MenuItem onSelect={() => act({ kind: "take-apart", group: group.id }, true)}>Dissolve the group</MenuItem>
    </>
  );
}

/** Which drives hold the parity: any that is as large as each of those that then hold data. */
function ParityDrives({ group, drives }: { group: Group; drives: readonly Drive[] }) {
  const { act } = useWorkbench();
  const [unit] = useUnit();
  const named = group.options?.parityDrives ?? [];
  const namedWith = (drive: string) =>
    [drive, ...named.filter((id) => id !== drive)].slice(0, Math.max(1, named.length));
  // No data drive may then be larger.
  const isLargeEnough = ({ id, bytes }: Drive) =>
    drives.every((other) => namedWith(id).includes(other.id) || other.bytes <= bytes);
  return (
    <SubMenu label={plural(named.length, "Parity drive")}>
      {drives.filter(isLargeEnough).map((drive) => (
        <MenuItem
          key={drive.id}
          onSelect={() =>
            act({
              kind: "set-options",
              group: group.id,
              options: { ...group.options, parityDrives: namedWith(drive.id) },
            })
          }
        >
          {named.includes(drive.id) ? "✓ " : ""}
          {nameOfDrive(drive, unit).replace(/^the /, "")}
        </MenuItem>
      ))}
    </SubMenu>
  );
}
