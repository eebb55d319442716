"use client";

import { useMemo, type KeyboardEvent, type PointerEvent } from "react";
import { formatBytes } from "@/core/bytes/formatBytes";
import { useSize } from "../../kit/useSize";
import { useUnit } from "../../preferences/preferences";
import { useWorkbench } from "../useWorkbench";
import { useMoment } from "../useMoment";
import { Stairs } from "./Stairs";
import { stripGeometry } from "./stripGeometry";

/** The staircase of capacity over the days of the plan: press, drag or use the arrow keys to choose the moment. */
export function Staircase() {
  const { walk, dates } = useWorkbench();
  const { at, goTo } = useMoment();
  const [unit] = useUnit();
  const [ref, size] = useSize<HTMLDivElement>();
  const geometry = useMemo(() => (size ? stripGeometry(walk, size, dates) : null), [walk, size, dates]);
  const { moments } = walk;
  const last = moments.length - 1;
  const moment = moments[at];
  const nearest = (x: number) =>
    geometry?.at.reduce(
      (best, each, i) => (Math.abs(each - x) < Math.abs((geometry.at[best] ?? 0) - x) ? i : best),
      0,
    ) ?? 0;
  const onPointer = (event: PointerEvent<HTMLDivElement>) => {
    if (event.type === "pointermove" && event.buttons === 0) return;
    const box = event.currentTarget.getBoundingClientRect();
    goTo(nearest(event.clientX - box.left));
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const to: Record<string, number> = {
      ArrowLeft: at - 1,
      ArrowDown: at - 1,
      ArrowRight: at + 1,
      ArrowUp: at + 1,
      Home: 0,
      End: last,
      PageDown: at - 10,
      PageUp: at + 10,
    };
    const next = to[event.key];
    if (next === undefined) return;
    event.preventDefault();
    goTo(Math.max(0, Math.min(last, next)));
  };
  const words =
    at === 0
      ? "Now, before the first step"
      : `After step ${at} of ${last}: ${moment?.walked?.does ?? ""} ${formatBytes(moment?.capacities.pool ?? 0, unit)} in the pool.`;
  return (
    <div
      ref={ref}
      role="slider"
      tabIndex={0}
      aria-label="Moment of the plan"
      aria-valuemin={0}
      aria-valuemax={last}
      aria-valuenow={at}
      aria-valuetext={words}
      onKeyDown={onKeyDown}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        onPointer(event);
      }}
      onPointerMove={onPointer}
      className="relative h-full min-h-28 w-full cursor-ew-resize touch-none rounded-sm"
    >
      {geometry && (
        <>
          <Stairs geometry={geometry} walk={walk} />
          <svg
            width={geometry.width}
            height={geometry.height}
            aria-hidden="true"
            className="pointer-events-none absolute inset-0"
          >
            <line
              x1={geometry.at[at] ?? 0}
              x2={geometry.at[at] ?? 0}
              y1={2}
              y2={geometry.foot + 20}
              stroke="var(--ink)"
              strokeWidth="2"
            />
            <circle cx={geometry.at[at] ?? 0} cy={geometry.foot} r={5} fill="var(--ink)" />
            {geometry.marks[at - 1] && (
              <rect
                x={(geometry.marks[at - 1]?.x ?? 0) + 0.5}
                y={geometry.foot + 6}
                width={Math.max(2, (geometry.marks[at - 1]?.width ?? 0) - 1)}
                height={12}
                rx={2}
                fill="none"
                stroke="var(--ink)"
                strokeWidth="2"
              />
            )}
          </svg>
        </>
      )}
    </div>
  );
}
