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

/** Below this the name, the layout and the sign of a menu do not fit beside one another, in CSS pixels. */
const NARROW = 90;
/** A name over two lines, broken wherever it must be. */
const NARROW_NAME = "line-clamp-2 block text-[0.72rem] leading-tight wrap-anywhere";

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
  const narrow = style.width < NARROW;
  const bracket = <span aria-hidden="true" className="block h-1.5 rounded-b-sm border-x border-b border-line-strong" />;
  if (!run.named) {
    return (
      <div className="absolute top-1" style={style}>
        {bracket}
        <span
          className={`text-center text-soft ${narrow ? NARROW_NAME : "block truncate text-[0.8rem]"}`}
          title={pool.name}
        >
          {pool.name}
        </span>
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
            title={narrow ? pool.name : undefined}
            className={
              "mx-auto flex min-h-[24px] max-w-full items-center justify-center gap-1 rounded hover:bg-wall " +
              `data-[state=open]:bg-wall ${narrow ? "w-full" : "px-2 py-0.5 text-[0.93rem]"}`
            }
          >
            {narrow ? (
              <span className={NARROW_NAME}>{pool.name}</span>
            ) : (
              <>
                <span className="truncate font-semibold">{pool.name}</span>
                <span className="truncate text-soft">{layout.shortName}</span>
                <ChevronDown size={14} aria-hidden className="shrink-0" />
              </>
            )}
          </button>
        }
      >
        <GroupMenuItems group={group} drives={drives} usableBytes={figures.usableBytes} />
      </MenuButton>
    </div>
  );
}
