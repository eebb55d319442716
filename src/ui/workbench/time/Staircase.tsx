"use client";

import { useMemo, type KeyboardEvent, type PointerEvent } from "react";
import { formatBytes, type UnitFamily } from "@/core/bytes/formatBytes";
import type { Walk } from "@/core/walk/moment";
import { part } from "../../kit/part";
import { CHANCES_AFTER, useAfter } from "../../kit/useAfter";
import { useSize } from "../../kit/useSize";
import { useUnit } from "../../preferences/preferences";
import { useWorkbench } from "../useWorkbench";
import { useMoment } from "../useMoment";
import { Stairs } from "./Stairs";
import { momentNear, stripGeometry, type StripGeometry } from "./stripGeometry";
import { ownValue } from "@/core/records/ownValue";

const WindowChances = part(() => import("../../chance/WindowChances").then((module) => module.WindowChances));

/** To which moment a key goes from one. */
const KEYS: Partial<Record<string, (at: number, last: number) => number>> = {
  ArrowLeft: (at) => at - 1,
  ArrowDown: (at) => at - 1,
  ArrowRight: (at) => at + 1,
  ArrowUp: (at) => at + 1,
  Home: () => 0,
  End: (_, last) => last,
  PageDown: (at) => at - 10,
  PageUp: (at) => at + 10,
};

/** What stands at a moment, as it is read out. */
function momentWordsAt({ moments }: Walk, at: number, unit: UnitFamily): string {
  const moment = moments[at];
  if (at === 0 || !moment) return "Now, before the first step";
  const does = moment.walked?.does ?? "";
  return `After step ${at} of ${moments.length - 1}: ${does} ${formatBytes(moment.capacities.pool, unit)} in the pool.`;
}

/** The staircase of capacity over the days of the plan: press, drag or use the arrow keys to choose the moment. */
export function Staircase() {
  const { walk, dates } = useWorkbench();
  const { at, goTo } = useMoment();
  const [unit] = useUnit();
  const isSettled = useAfter(CHANCES_AFTER);
  const [ref, size] = useSize<HTMLDivElement>();
  const geometry = useMemo(() => (size ? stripGeometry(walk, size, dates) : null), [walk, size, dates]);
  const last = walk.moments.length - 1;
  const onPointer = (event: PointerEvent<HTMLDivElement>) => {
    if (!geometry || (event.type === "pointermove" && event.buttons === 0)) return;
    goTo(momentNear(geometry, event.clientX - event.currentTarget.getBoundingClientRect().left));
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const next = ownValue(KEYS, event.key)?.(at, last);
    if (next === undefined) return;
    event.preventDefault();
    goTo(Math.max(0, Math.min(last, next)));
  };
  return (
    <div
      ref={ref}
      role="slider"
      tabIndex={0}
      aria-label="Moment of the plan"
      aria-valuemin={0}
      aria-valuemax={last}
      aria-valuenow={at}
      aria-valuetext={momentWordsAt(walk, at, unit)}
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
          {isSettled && geometry.windows.length > 0 && <WindowChances geometry={geometry} />}
          <Hand geometry={geometry} at={at} />
        </>
      )}
    </div>
  );
}

/** Where the hand is: an upright line through the stairs, and a frame about the step before it. */
function Hand({ geometry, at }: { geometry: StripGeometry; at: number }) {
  const x = geometry.at[at] ?? 0;
  const step = geometry.marks[at - 1];
  return (
    <svg
      width={geometry.width}
      height={geometry.height}
      aria-hidden="true"
      className="pointer-events-none absolute inset-0"
    >
      <line x1={x} x2={x} y1={2} y2={geometry.foot + 20} stroke="var(--ink)" strokeWidth="2" />
      <circle cx={x} cy={geometry.foot} r={5} fill="var(--ink)" />
      {step && (
        <rect
          x={step.x + 0.5}
          y={geometry.foot + 6}
          width={Math.max(2, step.width - 1)}
          height={12}
          rx={2}
          fill="none"
          stroke="var(--ink)"
          strokeWidth="2"
        />
      )}
    </svg>
  );
}
