"use client";

import { useMemo, type KeyboardEvent } from "react";
import { part } from "../../kit/part";
import { CHANCES_AFTER, useAfter } from "../../kit/useAfter";
import { useAlong } from "../../kit/useAlong";
import { useSize } from "../../kit/useSize";
import { useUnit } from "../../preferences/preferences";
import { useWorkbench } from "../useWorkbench";
import { useMoment } from "../useMoment";
import { Stairs } from "./Stairs";
import { spokenMoment } from "./spokenMoment";
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

/** The staircase of capacity over the days of the plan: press, drag or use the arrow keys to choose the moment. */
export function Staircase() {
  const { walk, dates } = useWorkbench();
  const { at, goTo } = useMoment();
  const [unit] = useUnit();
  const isSettled = useAfter(CHANCES_AFTER);
  const [ref, size] = useSize<HTMLDivElement>();
  const geometry = useMemo(() => (size ? stripGeometry(walk, size, dates) : null), [walk, size, dates]);
  const last = walk.moments.length - 1;
  const along = useAlong((x) => geometry && goTo(momentNear(geometry, x)));
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
      aria-valuetext={spokenMoment(walk, dates.schedule, at, unit)}
      onKeyDown={onKeyDown}
      {...along}
      className="relative h-full min-h-28 w-full cursor-ew-resize touch-pan-y rounded-sm"
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
