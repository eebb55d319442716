"use client";

import { useMemo } from "react";
import { poolOf, type Choice } from "@/core/compare/compare";
import type { Plan } from "@/core/document/plan";
import type { Drive } from "@/core/drives/drive";
import { PatternRect } from "../kit/Swatch";
import { SMALL, terraceGeometry } from "../workbench/terraces/geometry";

/** A choice as a plan of its own, its drives side by side in the order of its groups, so that the terraces can draw it. */
function stage(choice: Choice, drives: readonly Drive[], plan: Plan): Plan {
  const order = [...choice.groups.flatMap((group) => group.drives), ...choice.leftOut];
  const placed = order.flatMap((id, i) => {
    const drive = drives.find((each) => each.id === id);
    return drive ? [{ ...drive, place: { bay: i + 1 } }] : [];
  });
  return { ...plan, box: { ...plan.box, bays: Math.max(1, order.length) }, drives: placed, pools: [poolOf(choice.groups)] };
}

/** The terraces of one choice, small, to the same scale for the same drives. */
export function MiniTerraces({ choice, drives, plan, width, height }: { choice: Choice; drives: readonly Drive[]; plan: Plan; width: number; height: number }) {
  const geometry = useMemo(() => terraceGeometry(stage(choice, drives, plan), { pools: [choice.pool] }, { width, height }, "TB", SMALL), [choice, drives, plan, width, height]);
  const { columns, bridges, runs, foot } = geometry;
  return (
    <svg width={width} height={height} aria-hidden="true" className="block shrink-0">
      {bridges.map(({ x, width: across, segment }, i) => (
        <g key={i} opacity={0.4}>
          <PatternRect kind={segment.kind} x={x} y={segment.y} width={across} height={segment.height} />
        </g>
      ))}
      {columns.map((column) => (
        <g key={column.bay}>
          {column.segments.map((segment, i) => (
            <PatternRect key={i} kind={segment.kind} x={column.x} y={segment.y + 0.25} width={column.width} height={segment.height - 0.5} />
          ))}
        </g>
      ))}
      {runs.length > 1 &&
        runs.slice(1).map((run) => {
          const column = columns[run.from];
          return column ? <line key={run.group} x1={column.x - 2} x2={column.x - 2} y1={0} y2={foot} stroke="var(--ink)" strokeWidth="1" strokeDasharray="2 2" /> : null;
        })}
    </svg>
  );
}
