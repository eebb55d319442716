"use client";

import { memo } from "react";
import { formatBytes } from "@/core/bytes/formatBytes";
import { useUnit } from "../../preferences/preferences";
import { windowWords, type StripGeometry } from "./stripGeometry";
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
      <WindowPatterns />
      {geometry.windows.map(({ x, width, redundancy }, i) => (
        <rect
          key={i}
          x={x}
          y={16}
          // However short it is, it is seen.
          width={Math.max(3, width)}
          height={geometry.foot - 16}
          fill={`url(#${patternOf(redundancy)})`}
          stroke={redundancy <= 0 ? "var(--geranium)" : "var(--parity)"}
          strokeWidth="0.75"
        />
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
      {/* Over the lines, so that none of them crosses a word. */}
      {windowWords(geometry.windows, geometry.width).map(({ x, redundancy, text }) => (
        <text
          key={x}
          x={x}
          y={geometry.foot - 6}
          textAnchor="middle"
          fontSize="11"
          fontWeight="600"
          fill={redundancy <= 0 ? "var(--geranium)" : "var(--ochre-text)"}
          stroke="var(--ground)"
          strokeWidth="3"
          paintOrder="stroke"
        >
          {text}
        </text>
      ))}
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

/** Which pattern shades the hours in which so few more failed drives are survived. */
const patternOf = (redundancy: number) =>
  redundancy <= 0 ? "window-none" : redundancy === 1 ? "window-one" : "window-more";

/** None more: crossed; one: dashes; several: dots. They are told apart without their hues. */
function WindowPatterns() {
  return (
    <defs>
      <pattern id="window-none" width="7" height="7" patternUnits="userSpaceOnUse">
        <rect width="7" height="7" fill="var(--geranium-ground)" />
        <path d="M0 0l7 7m0-7l-7 7" stroke="var(--geranium)" strokeWidth="0.75" />
      </pattern>
      <pattern id="window-one" width="8" height="8" patternUnits="userSpaceOnUse">
        <rect width="8" height="8" fill="var(--parity-ground)" />
        <path d="M1 4h4" stroke="var(--parity)" strokeWidth="1.25" />
      </pattern>
      <pattern id="window-more" width="8" height="8" patternUnits="userSpaceOnUse">
        <rect width="8" height="8" fill="var(--parity-ground)" />
        <circle cx="4" cy="4" r="0.9" fill="var(--parity)" />
      </pattern>
    </defs>
  );
}

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
