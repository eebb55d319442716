"use client";

import type { KeyboardEvent, PointerEvent } from "react";
import { STRIP_HEIGHT, useStripHeight } from "../../preferences/preferences";

/** How much a key moves the edge, in pixels. */
const STEP = 32;

/** The upper edge of the strip of time: drawn up, more of a long plan is in sight. */
export function StripEdge() {
  const [height, setHeight] = useStripHeight();
  const onKeyDown = (event: KeyboardEvent) => {
    const to = {
      ArrowUp: height + STEP,
      ArrowDown: height - STEP,
      Home: STRIP_HEIGHT.least,
      End: STRIP_HEIGHT.most,
    }[event.key];
    if (to === undefined) return;
    event.preventDefault();
    setHeight(to);
  };
  const onPointerMove = (event: PointerEvent<HTMLElement>) => {
    if (!event.currentTarget.hasPointerCapture(event.pointerId)) return;
    const foot = event.currentTarget.parentElement?.getBoundingClientRect().bottom ?? 0;
    setHeight(foot - event.clientY);
  };
  return (
    <div
      role="separator"
      aria-orientation="horizontal"
      aria-label="Height of the steps"
      aria-valuenow={height}
      aria-valuemin={STRIP_HEIGHT.least}
      aria-valuemax={STRIP_HEIGHT.most}
      tabIndex={0}
      title="Draw it up to see more of the plan"
      onKeyDown={onKeyDown}
      onPointerDown={(event) => event.currentTarget.setPointerCapture(event.pointerId)}
      onPointerMove={onPointerMove}
      onDoubleClick={() => setHeight(STRIP_HEIGHT.least)}
      className={
        "absolute -top-[18px] left-1/2 hidden h-[24px] w-24 -translate-x-1/2 cursor-ns-resize touch-none " +
        "items-center justify-center md:flex"
      }
    >
      <span aria-hidden="true" className="h-1 w-10 rounded-full bg-line-strong/60" />
    </div>
  );
}
