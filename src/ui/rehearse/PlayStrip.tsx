"use client";

import { useDroppable } from "@dnd-kit/core";
import type { KeyboardEvent } from "react";
import type { Plan } from "@/core/document/plan";
import { useAlong } from "../kit/useAlong";
import { useUnit } from "../preferences/preferences";
import { clockWords } from "./clockWords";
import { mishapWords } from "./mishapWords";
import type { PlayedView } from "./played";

/** The drop target of the strip of time. */
export const STRIP_DROP = "strip";

interface Props {
  view: PlayedView;
  plan: Plan;
  onSeek: (hours: number) => void;
}

/** By how much of the whole each key goes. */
const MOVES: ReadonlyMap<string, number> = new Map([
  ["ArrowRight", 0.01],
  ["ArrowUp", 0.01],
  ["ArrowLeft", -0.01],
  ["ArrowDown", -0.01],
  ["PageUp", 0.1],
  ["PageDown", -0.1],
]);

/** Time, from the beginning of the plan to its end: the steps, what strikes, and where the box is now. */
export function PlayStrip({ view, plan, onSeek }: Props) {
  const [unit] = useUnit();
  const { setNodeRef, isOver } = useDroppable({ id: STRIP_DROP });
  const { hours, length, pieces, strikes } = view;
  const percent = (at: number) => `${Math.min(100, (at / length) * 100)}%`;
  const current = pieces.filter(({ from }) => from <= hours).at(-1);
  // A mishap that is dragged across it is held by what it comes from, and does not move it.
  const along = useAlong((x, width) => onSeek(Math.max(0, Math.min(1, x / width)) * length));
  const onKeyDown = (event: KeyboardEvent) => {
    const move = MOVES.get(event.key);
    const to =
      event.key === "Home" ? 0 : event.key === "End" ? Infinity : move === undefined ? null : hours + move * length;
    if (to === null) return;
    event.preventDefault();
    // The end moves away while something is done about what has gone wrong: it is played until it is over.
    onSeek(to === Infinity ? to : Math.max(0, Math.min(length, to)));
  };
  return (
    <div
      ref={setNodeRef}
      data-strip
      role="slider"
      tabIndex={0}
      aria-label="Time of the rehearsal"
      aria-valuemin={0}
      aria-valuemax={Math.round(length * 10) / 10}
      aria-valuenow={Math.round(hours * 10) / 10}
      aria-valuetext={`${clockWords(hours)}${current ? `: ${current.label}` : ""}`}
      onKeyDown={onKeyDown}
      {...along}
      className={`relative h-14 shrink-0 cursor-pointer touch-pan-y ${isOver ? "outline-2 outline-geranium" : ""}`}
    >
      {pieces.map(({ step, label, from, to }, i) => (
        <div
          key={step}
          title={`${i + 1}. ${label}`}
          data-on={current?.step === step && hours > 0}
          className={
            "absolute top-4 h-7 truncate border-r border-ground px-1 text-[0.8rem] leading-7 " +
            (to <= hours
              ? "bg-line text-soft"
              : current?.step === step
                ? "bg-indigo text-on-indigo"
                : "bg-wall text-ink")
          }
          style={{ left: percent(from), width: `${Math.max(0.4, ((to - from) / length) * 100)}%` }}
        >
          {(to - from) / length > 0.025 ? `${i + 1}. ${label}` : ""}
        </div>
      ))}
      {pieces.length === 0 && (
        <div className="absolute inset-x-0 top-4 h-7 bg-wall px-2 leading-7 text-soft">At rest</div>
      )}
      {strikes.map(({ hours: at, mishap }, i) => (
        <span
          key={i}
          title={mishapWords(mishap, plan, unit)}
          className="absolute top-0 -translate-x-1/2 leading-none text-geranium"
          style={{ left: percent(at) }}
        >
          ▼
        </span>
      ))}
      <div className="absolute top-2 h-11 w-0.5 -translate-x-1/2 bg-ink" style={{ left: percent(hours) }} />
    </div>
  );
}
