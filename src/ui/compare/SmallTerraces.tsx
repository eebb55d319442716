"use client";

import { useMemo } from "react";
import type { Plan } from "@/core/document/plan";
import type { PoolPrediction } from "@/core/prediction/predictPool";
import { PatternRect } from "../kit/Swatch";
import { SMALL, terraceGeometry } from "../workbench/terraces/geometry";

/** The terraces of a box, small and without words. */
export function SmallTerraces({
  plan,
  pools,
  width,
  height,
  failed,
}: {
  plan: Plan;
  pools: readonly PoolPrediction[];
  width: number;
  height: number;
  /** Drives that are crossed out. */
  failed?: ReadonlySet<string>;
}) {
  const geometry = useMemo(
    () => terraceGeometry(plan, { pools: [...pools] }, { width, height }, "TB", SMALL),
    [plan, pools, width, height],
  );
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
            <PatternRect
              key={i}
              kind={segment.kind}
              x={column.x}
              y={segment.y + 0.25}
              width={column.width}
              height={segment.height - 0.5}
            />
          ))}
        </g>
      ))}
      {columns.map((column) =>
        column.drive && failed?.has(column.drive.id) ? (
          <g key={column.bay} stroke="var(--geranium)" strokeWidth="2">
            <rect
              x={column.x}
              y={column.top}
              width={column.width}
              height={foot - column.top}
              fill="var(--ground)"
              fillOpacity="0.6"
            />
            <line x1={column.x} y1={column.top} x2={column.x + column.width} y2={foot} />
            <line x1={column.x} y1={foot} x2={column.x + column.width} y2={column.top} />
          </g>
        ) : null,
      )}
      {runs.length > 1 &&
        runs.slice(1).map((run) => {
          const column = columns[run.from];
          return column ? (
            <line
              key={run.group}
              x1={column.x - 2}
              x2={column.x - 2}
              y1={0}
              y2={foot}
              stroke="var(--ink)"
              strokeWidth="1"
              strokeDasharray="2 2"
            />
          ) : null;
        })}
    </svg>
  );
}
