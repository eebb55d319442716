"use client";

import { ofBoxes } from "@/core/chance/chanceWords";
import { useWorkbench } from "../workbench/useWorkbench";
import type { StripGeometry } from "../workbench/time/stripGeometry";
import { useChances } from "./useChances";

/** About how wide a chance is written, in CSS pixels. */
const WIDE = 64;

/**
 * What each window of lowered protection may cost, over the staircase: a short one of a bad kind and a long one of a
 * good kind are told apart. Where there is no space for all, the worst are written.
 */
export function WindowChances({ geometry }: { geometry: StripGeometry }) {
  const { walk } = useWorkbench();
  const { told, isOld } = useChances(walk.plan, "");
  const chanceOf = new Map(told?.expected.along.steps.map(({ step, any }) => [step, any]));
  const written: { x: number; words: string }[] = [];
  const worstFirst = geometry.windows
    .map(({ x, width, step }) => ({ x: x + width / 2, chance: chanceOf.get(step) ?? 0 }))
    .sort((a, b) => b.chance - a.chance);
  for (const { x, chance } of worstFirst)
    if (chance > 0 && written.every((other) => Math.abs(other.x - x) > WIDE))
      written.push({ x, words: ofBoxes(chance) });
  return (
    <svg
      width={geometry.width}
      height={geometry.height}
      aria-hidden="true"
      className="pointer-events-none absolute inset-0"
    >
      {written.map(({ x, words }) => (
        <text
          key={x}
          x={Math.max(WIDE / 2, x)}
          y={geometry.foot - 20}
          textAnchor="middle"
          fontSize="11"
          fontWeight="600"
          fill={isOld ? "var(--soft)" : "var(--ink)"}
          stroke="var(--ground)"
          strokeWidth="3"
          paintOrder="stroke"
        >
          {words}
        </text>
      ))}
    </svg>
  );
}
