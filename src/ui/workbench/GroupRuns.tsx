"use client";

import { ChevronDown } from "lucide-react";
import { layoutOf } from "@/core/layouts/registry";
import { counted } from "@/core/words/counted";
import { MenuButton } from "../kit/MenuButton";
import type { Run, TerraceGeometry } from "./terraces/geometry";
import { useWorkbench } from "./useWorkbench";
import { part } from "../kit/part";

const GroupMenuItems = part(() => import("./GroupMenuItems").then((module) => module.GroupMenuItems), {
  needed: "this menu",
  meanwhile: "whatever is around",
});

/** Brackets under the columns of each group, with its name, its layout, and its menu. */
export function GroupRuns({ geometry }: { geometry: TerraceGeometry }) {
  return (
    <div className="relative h-9 shrink-0" style={{ width: geometry.width }}>
      {geometry.runs.map((run) => (
        <RunBracket key={`${run.group}-${run.from}`} run={run} geometry={geometry} />
      ))}
    </div>
  );
}

function RunBracket({ run, geometry }: { run: Run; geometry: TerraceGeometry }) {
  const { plan, prediction } = useWorkbench();
  const from = geometry.columns[run.from];
  const to = geometry.columns[run.to];
  const pool = plan.pools.find((each) => each.id === run.pool);
  const group = pool?.groups.find((each) => each.id === run.group);
  const figures = prediction.pools.flatMap((each) => each.groups).find((each) => each.id === run.group);
  if (!from || !to || !pool || !group || !figures) return null;
  const style = { left: from.x, width: to.x + to.width - from.x };
  const bracket = <span aria-hidden="true" className="block h-1.5 rounded-b-sm border-x border-b border-line-strong" />;
  if (!run.named) {
    return (
      <div className="absolute top-1" style={style}>
        {bracket}
        <span className="block truncate text-center text-[0.8rem] text-soft">{pool.name}</span>
      </div>
    );
  }
  const drives = group.drives.flatMap((id) => plan.drives.find((drive) => drive.id === id) ?? []);
  const layout = layoutOf(group.layout);
  return (
    <div className="absolute top-1" style={style}>
      {bracket}
      <MenuButton
        align="center"
        width="w-[27rem] max-w-[calc(100vw-1rem)]"
        trigger={
          <button
            type="button"
            data-group={group.id}
            aria-label={`Layout of ${pool.name} ${layout.shortName}, ${counted(drives.length, "drive")}`}
            className={
              "mx-auto flex max-w-full items-center gap-1 rounded px-2 py-0.5 text-[0.93rem] hover:bg-wall " +
              "data-[state=open]:bg-wall"
            }
          >
            <span className="truncate font-semibold">{pool.name}</span>
            <span className="truncate text-soft">{layout.shortName}</span>
            <ChevronDown size={14} aria-hidden className="shrink-0" />
          </button>
        }
      >
        <GroupMenuItems group={group} drives={drives} usableBytes={figures.usableBytes} />
      </MenuButton>
    </div>
  );
}
