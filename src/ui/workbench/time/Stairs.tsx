"use client";

import { memo } from "react";
import { formatBytes } from "@/core/bytes/formatBytes";
import { useUnit } from "../../preferences/preferences";
import type { StripGeometry } from "./stripGeometry";
import type { Walk } from "@/core/walk/moment";

const LINES = {
  pool: { name: "pool", dash: undefined, width: 2.5 },
  volume: { name: "volume", dash: "7 4", width: 2 },
  fileSystem: { name: "files", dash: "2 3", width: 2.5 },
} as const;

/** The staircase as a picture, without the moment that is chosen: drawn anew only when the plan changes. */
export const Stairs = memo(function Stairs({ geometry, walk }: { geometry: StripGeometry; walk: Walk }) {
  const [unit] = useUnit();
  const { moments } = walk;
  const last = moments.length - 1;
  const { stored } = geometry;
  const apart = apartLabels([...geometry.lines.map((line) => line.end), ...(stored ? [stored.end] : [])]);
  const same = moments.every(
    (each) => each.capacities.pool === each.capacities.volume && each.capacities.pool === each.capacities.fileSystem,
  );
  return (
    <svg width={geometry.width} height={geometry.height} aria-hidden="true" className="absolute inset-0">
      {geometry.days.map(({ x, label }) => (
        <g key={label}>
          <line x1={x} x2={x} y1={4} y2={geometry.foot} stroke="var(--line)" />
          <text x={x + 3} y={12} fontSize="11" fill="var(--soft)">
            {label}
          </text>
        </g>
      ))}
      {geometry.windows.map((window, i) => (
        <g key={i}>
          <rect
            x={window.x}
            y={16}
            width={window.width}
            height={geometry.foot - 16}
            fill={window.redundancy <= 0 ? "var(--geranium-ground)" : "var(--parity-ground)"}
          />
          {window.width > 78 && (
            <text
              x={window.x + window.width / 2}
              y={geometry.foot - 6}
              textAnchor="middle"
              fontSize="11"
              fill={window.redundancy <= 0 ? "var(--geranium)" : "var(--ochre-text)"}
            >
              {window.redundancy <= 0 ? "survives none" : `survives only ${window.redundancy}`}
            </text>
          )}
        </g>
      ))}
      <line x1={0} x2={geometry.width} y1={geometry.foot} y2={geometry.foot} stroke="var(--line-strong)" />
      {geometry.lines
        .filter((line) => !same || line.id === "pool")
        .map((line, i) => (
          <g key={line.id}>
            <polyline
              points={line.points}
              fill="none"
              stroke={line.id === "volume" ? "var(--parity)" : "var(--data)"}
              strokeWidth={LINES[line.id].width}
              strokeDasharray={LINES[line.id].dash}
            />
            <text x={geometry.width - 88} y={(apart[i] ?? line.end) + 4} fontSize="11" fill="var(--soft)">
              {same ? "" : `${LINES[line.id].name} `}
              {formatBytes(moments[last]?.capacities[line.id] ?? 0, unit)}
            </text>
          </g>
        ))}
      {stored && (
        <g>
          <polyline
            points={stored.points}
            fill="none"
            stroke="var(--ink)"
            strokeWidth={1.5}
            strokeDasharray="1 3"
            strokeLinecap="round"
          />
          <text x={geometry.width - 88} y={(apart.at(-1) ?? stored.end) + 4} fontSize="11" fill="var(--ink)">
            stored {formatBytes(stored.bytes, unit)}
          </text>
        </g>
      )}
      {geometry.marks.map((mark, i) => {
        const walked = moments[i + 1]?.walked;
        const blocked = walked?.findings.some((finding) => finding.severity === "block");
        const off = walked?.step.disabled;
        return (
          <rect
            key={i}
            x={mark.x + 0.5}
            y={geometry.foot + 6}
            width={Math.max(2, mark.width - 1)}
            height={12}
            rx={2}
            fill={off ? "none" : blocked ? "var(--geranium)" : "var(--data)"}
            stroke={off ? "var(--line-strong)" : "none"}
            strokeDasharray={off ? "2 2" : undefined}
          />
        );
      })}
    </svg>
  );
});

/** The heights of labels, moved so far apart that none covers another. */
function apartLabels(heights: readonly number[]): number[] {
  const order = heights.map((y, i) => ({ y, i })).sort((a, b) => a.y - b.y);
  let floor = -Infinity;
  const placed: number[] = [];
  for (const { y, i } of order) {
    floor = Math.max(y, floor + 13);
    placed[i] = floor;
  }
  return placed;
}
