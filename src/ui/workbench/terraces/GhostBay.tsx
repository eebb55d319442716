"use client";

import type { Remote } from "comlink";
import { useCallback, useEffect, useRef, useState, type KeyboardEvent } from "react";
import type { Plan, Pool } from "@/core/document/plan";
import type { Placement } from "@/core/nextDrive/placements";
import type { CurvePoint } from "@/core/nextDrive/sizeCurve";
import type { Work } from "@/workers/work.worker";
import { useJob } from "../../kit/useJob";
import { useUnit } from "../../preferences/preferences";
import type { Column, TerraceGeometry } from "./geometry";
import { ghostScale, pointWords } from "./ghostCurve";
import { GhostMissing } from "./GhostMissing";
import { GhostPicture } from "./GhostPicture";
import { ownValue } from "@/core/records/ownValue";

export interface GhostProps {
  plan: Plan;
  pool: Pool;
  /** The free bay that it stands in. */
  column: Column;
  geometry: TerraceGeometry;
  /** Says a sentence below the picture; null clears it. */
  onSay: (words: string | null) => void;
  onOpen: (at: Placement) => void;
  /** It was asked for once more, and takes the focus when it is there. */
  takesFocus: boolean;
  onFocusTaken: () => void;
}

/** Whoever moves through time asks for no curve before they have come to rest, in milliseconds. */
const REST = 120;

/** By how many sizes each key goes up. */
const MOVES: Partial<Record<string, number>> = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1 };

/**
 * What if a drive came to this free bay? The curve stands where the drive would: as high as a drive of the size, as far
 * to the right as it adds space. Upright stretches are sizes that gain nothing more.
 */
export function GhostBay({ plan, pool, takesFocus, onFocusTaken, ...props }: GhostProps) {
  const start = useCallback(
    async (work: Remote<Work>) => ({ plan, best: await work.bestCurve(plan, pool.id) }),
    [plan, pool.id],
  );
  const { result, trouble, again } = useJob(start, REST);
  const [wasAsked, ask] = useState(false);
  const isOld = result?.plan !== plan;
  if (trouble !== null && isOld) {
    const tryAgain = () => {
      ask(true);
      again();
    };
    return <GhostMissing {...props} onAgain={tryAgain} />;
  }
  const best = result?.best;
  // The curve of a moment ago stays until the new one is there, without its figures, unless what it was for is gone.
  const stands = best && pool.groups.some((group) => group.id === best.at.group);
  return (
    stands && (
      <SizeSlider
        curve={best.curve}
        at={best.at}
        isOld={isOld}
        takesFocus={takesFocus || wasAsked}
        onFocusTaken={() => {
          ask(false);
          onFocusTaken();
        }}
        {...props}
      />
    )
  );
}

interface SliderProps extends Omit<GhostProps, "plan" | "pool"> {
  curve: readonly CurvePoint[];
  at: Placement;
  /** The curve is that of the plan a moment ago. */
  isOld: boolean;
}

function SizeSlider({ curve, at, isOld, takesFocus, onFocusTaken, column, geometry, onSay, onOpen }: SliderProps) {
  const [unit] = useUnit();
  const [aimed, choose] = useState<number | null>(null);
  const chosen = aimed === null ? null : Math.max(0, Math.min(curve.length - 1, aimed));
  const { foot, top } = geometry;
  const scale = ghostScale(curve, geometry, column);
  const chosenWords = isOld ? "Working out what a drive here would bring …" : pointWords(curve, chosen ?? 0, unit);
  const words = chosen === null ? null : chosenWords;
  useEffect(() => {
    onSay(words);
    return () => onSay(null);
  }, [onSay, words]);
  const slider = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (!takesFocus) return;
    slider.current?.focus();
    onFocusTaken();
  }, [takesFocus, onFocusTaken]);
  const leave = () => choose(null);
  const onKeyDown = (event: KeyboardEvent) => {
    const move = ownValue(MOVES, event.key);
    if (move !== undefined) {
      event.preventDefault();
      choose(chosen === null ? scale.middle : chosen + move);
    } else if (event.key === "Enter" || event.key === " ") {
      event.preventDefault();
      onOpen(at);
    } else if (event.key === "Escape") leave();
  };
  return (
    <div
      ref={slider}
      role="slider"
      tabIndex={0}
      aria-label={`What if a drive came to bay ${column.bay}? Its size`}
      aria-valuemin={0}
      aria-valuemax={curve.length - 1}
      aria-valuenow={chosen ?? scale.middle}
      aria-valuetext={words ?? "no size chosen"}
      aria-orientation="vertical"
      onKeyDown={onKeyDown}
      onFocus={() => chosen === null && choose(scale.middle)}
      onBlur={leave}
      onPointerMove={(event) => choose(scale.nearest(event.nativeEvent.offsetY + top))}
      onPointerLeave={leave}
      onClick={() => onOpen(at)}
      className="absolute cursor-pointer rounded-sm"
      style={{ left: column.x, top, width: column.width, height: foot - top }}
    >
      <GhostPicture
        curve={curve}
        point={chosen === null ? null : (curve[chosen] ?? null)}
        column={column}
        geometry={geometry}
        scale={scale}
      />
    </div>
  );
}
