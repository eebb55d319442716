"use client";

import type { Remote } from "comlink";
import { useCallback, useState, type KeyboardEvent } from "react";
import type { Plan, Pool } from "@/core/document/plan";
import type { Placement } from "@/core/nextDrive/placements";
import type { CurvePoint } from "@/core/nextDrive/sizeCurve";
import type { Work } from "@/workers/work.worker";
import { useJob } from "../../kit/useJob";
import { useUnit } from "../../preferences/preferences";
import type { Column, TerraceGeometry } from "./geometry";
import { ghostScale, pointWords } from "./ghostCurve";
import { GhostPicture } from "./GhostPicture";
import { ownValue } from "@/core/records/ownValue";

interface Props {
  plan: Plan;
  pool: Pool;
  /** The free bay that it stands in. */
  column: Column;
  geometry: TerraceGeometry;
  /** Says a sentence below the picture; null clears it. */
  onSay: (words: string | null) => void;
  onOpen: (at: Placement) => void;
}

/** Whoever moves through time asks for no curve before they have come to rest, in milliseconds. */
const REST = 120;
/** By how many sizes each key goes up. */
const MOVES: Partial<Record<string, number>> = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1 };

/**
 * What if a drive came to this free bay? The curve stands where the drive would: as high as a drive of the size, as far
 * to the right as it adds space. Upright stretches are sizes that gain nothing more.
 */
export function GhostBay({ plan, pool, ...props }: Props) {
  const start = useCallback((work: Remote<Work>) => work.bestCurve(plan, pool.id), [plan, pool.id]);
  const { result: best } = useJob(start, REST);
  // The curve of a moment ago stays until the new one is there, unless what it was for is gone.
  const stands = best && pool.groups.some((group) => group.id === best.at.group);
  return stands && <SizeSlider curve={best.curve} at={best.at} {...props} />;
}

interface SliderProps extends Omit<Props, "plan" | "pool"> {
  curve: readonly CurvePoint[];
  at: Placement;
}

function SizeSlider({ curve, at, column, geometry, onSay, onOpen }: SliderProps) {
  const [unit] = useUnit();
  const [chosen, choose] = useState<number | null>(null);
  const { foot, top } = geometry;
  const scale = ghostScale(curve, geometry, column);
  const go = (index: number) => {
    const next = Math.max(0, Math.min(curve.length - 1, index));
    choose(next);
    onSay(pointWords(curve, next, unit));
  };
  const leave = () => {
    choose(null);
    onSay(null);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const move = ownValue(MOVES, event.key);
    if (move !== undefined) {
      event.preventDefault();
      go(chosen === null ? scale.middle : chosen + move);
    } else if (event.key === "Enter" || event.key === " ") {
      event.preventDefault();
      onOpen(at);
    } else if (event.key === "Escape") leave();
  };
  return (
    <div
      role="slider"
      tabIndex={0}
      aria-label={`What if a drive came to bay ${column.bay}? Its size`}
      aria-valuemin={0}
      aria-valuemax={curve.length - 1}
      aria-valuenow={chosen ?? scale.middle}
      aria-valuetext={chosen === null ? "no size chosen" : pointWords(curve, chosen, unit)}
      aria-orientation="vertical"
      onKeyDown={onKeyDown}
      onFocus={() => chosen === null && go(scale.middle)}
      onBlur={leave}
      onPointerMove={(event) => go(scale.nearest(event.nativeEvent.offsetY + top))}
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
