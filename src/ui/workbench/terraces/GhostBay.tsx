"use client";

import { useMemo, useState, type KeyboardEvent, type PointerEvent } from "react";
import { formatChange } from "@/core/bytes/formatBytes";
import type { Plan, Pool } from "@/core/document/plan";
import { shortSize } from "@/core/drives/nameOfDrive";
import type { Placement } from "@/core/nextDrive/placements";
import { flatStretches, sizeCurve, type CurvePoint } from "@/core/nextDrive/sizeCurve";
import { stretchWords } from "../../nextDrive/curveWords";
import { useUnit } from "../../preferences/preferences";
import type { Column, TerraceGeometry } from "./geometry";

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

/** The group of a pool that gains most from one more drive, with its curve. */
function bestCurve(plan: Plan, pool: Pool): { at: Placement; curve: CurvePoint[] } | null {
  const curves = pool.groups.map((group) => {
    const at: Placement = { kind: "add", group: group.id };
    return { at, curve: sizeCurve(plan, pool, at) };
  });
  const most = (curve: readonly CurvePoint[]) => Math.max(...curve.map((point) => point.gainBytes));
  return curves.reduce<(typeof curves)[number] | null>(
    (best, each) => (best === null || most(each.curve) > most(best.curve) ? each : best),
    null,
  );
}

/**
 * What if a drive came to this free bay? The curve stands where the drive would: as high as a drive of the size, as far
 * to the right as it adds space. Upright stretches are sizes that gain nothing more.
 */
export function GhostBay({ plan, pool, column, geometry, onSay, onOpen }: Props) {
  const [unit] = useUnit();
  const best = useMemo(() => bestCurve(plan, pool), [plan, pool]);
  const [chosen, choose] = useState<number | null>(null);
  if (!best) return null;
  const { curve, at } = best;
  const { foot, top, most } = geometry;
  const yOf = (bytes: number) => Math.max(top, foot - (bytes / most) * (foot - top));
  const shown = curve.filter((point) => point.bytes <= most * 1.001);
  const gains = Math.max(1, ...curve.map((point) => point.gainBytes));
  const inset = 5;
  const xOf = (gain: number) => inset + (Math.max(0, gain) / gains) * (column.width - 2 * inset);
  const line = shown
    .filter((point) => point.outcome.ok)
    .map((point) => `${xOf(point.gainBytes).toFixed(1)},${yOf(point.bytes).toFixed(1)}`);
  const firstTaken = curve.find((each) => each.outcome.ok);
  const point = chosen === null ? null : curve[chosen];
  const wordsOf = (index: number): string => {
    const here = curve[index];
    if (!here) return "";
    const size = shortSize(here, unit);
    if (!here.outcome.ok) return `A ${size} drive here: ${here.outcome.reason}`;
    const gain = here.gainBytes === 0 ? "adds nothing" : formatChange(here.gainBytes, unit);
    const then =
      here.thenBytes > here.gainBytes ? ` ${formatChange(here.thenBytes, unit)} once a second one comes.` : "";
    const stretch = flatStretches(curve).find(
      (each) => here.bytes >= each.from && (each.to === null || here.bytes <= each.to),
    );
    return `A ${size} drive here: ${gain}.${then}${stretch ? ` ${stretchWords(stretch, unit)}` : ""}`;
  };
  const go = (index: number) => {
    const next = Math.max(0, Math.min(curve.length - 1, index));
    choose(next);
    onSay(wordsOf(next));
  };
  const leave = () => {
    choose(null);
    onSay(null);
  };
  const middle = Math.max(
    0,
    curve.findIndex((each) => each.bytes >= most * 0.74),
  );
  const onKeyDown = (event: KeyboardEvent) => {
    const moves: Record<string, number> = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1 };
    const move = moves[event.key];
    if (move !== undefined) {
      event.preventDefault();
      go((chosen ?? middle) + (chosen === null ? 0 : move));
    } else if (event.key === "Enter" || event.key === " ") {
      event.preventDefault();
      onOpen(at);
    } else if (event.key === "Escape") leave();
  };
  const onPointerMove = (event: PointerEvent<HTMLDivElement>) => {
    const y = event.nativeEvent.offsetY + top;
    const near = shown.reduce(
      (nearest, each, i) =>
        Math.abs(yOf(each.bytes) - y) < Math.abs(yOf(shown[nearest]?.bytes ?? 0) - y) ? i : nearest,
      0,
    );
    const bytes = shown[near]?.bytes;
    go(curve.findIndex((each) => each.bytes === bytes));
  };
  return (
    <div
      role="slider"
      tabIndex={0}
      aria-label={`What if a drive came to bay ${column.bay}? Its size`}
      aria-valuemin={0}
      aria-valuemax={curve.length - 1}
      aria-valuenow={chosen ?? middle}
      aria-valuetext={chosen === null ? "no size chosen" : wordsOf(chosen)}
      aria-orientation="vertical"
      onKeyDown={onKeyDown}
      onFocus={() => chosen === null && go(middle)}
      onBlur={leave}
      onPointerMove={onPointerMove}
      onPointerLeave={leave}
      onClick={() => onOpen(at)}
      className="absolute cursor-pointer rounded-sm"
      style={{ left: column.x, top, width: column.width, height: foot - top }}
    >
      <svg
        width={column.width}
        height={foot - top}
        viewBox={`0 ${top} ${column.width} ${foot - top}`}
        aria-hidden="true"
        className="pointer-events-none block"
      >
        <rect
          x={0.5}
          y={top + 0.5}
          width={column.width - 1}
          height={foot - top - 1}
          fill={chosen === null ? "none" : "var(--wall)"}
          stroke="var(--line)"
          strokeDasharray="2 4"
        />
        {point && point.bytes <= most * 1.001 && (
          <rect
            x={1.5}
            y={yOf(point.bytes)}
            width={column.width - 3}
            height={foot - yOf(point.bytes)}
            fill="none"
            stroke="var(--data)"
            strokeDasharray="5 3"
            strokeWidth="1.5"
          />
        )}
        {line.length > 1 && <polyline points={line.join(" ")} fill="none" stroke="var(--data)" strokeWidth="2" />}
        {line.length > 0 &&
          shown
            .filter((each) => each.outcome.ok)
            .map((each) => (
              <circle key={each.bytes} cx={xOf(each.gainBytes)} cy={yOf(each.bytes)} r={2.6} fill="var(--data)" />
            ))}
        {point && point.outcome.ok && point.bytes <= most * 1.001 && (
          <circle
            cx={xOf(point.gainBytes)}
            cy={yOf(point.bytes)}
            r={5}
            fill="none"
            stroke="var(--ink)"
            strokeWidth="2"
          />
        )}
        {column.width >= 76 && firstTaken && firstTaken !== curve[0] && firstTaken.bytes <= most && (
          <g>
            <line
              x1={0}
              x2={column.width}
              y1={yOf(firstTaken.bytes)}
              y2={yOf(firstTaken.bytes)}
              stroke="var(--line-strong)"
              strokeDasharray="2 3"
            />
            <text
              x={column.width / 2}
              y={yOf(firstTaken.bytes) + 16}
              textAnchor="middle"
              fontSize="12"
              fill="var(--soft)"
            >
              from {shortSize(firstTaken, unit)}
            </text>
          </g>
        )}
        {column.width >= 76 && (
          <text x={column.width / 2} y={foot - 10} textAnchor="middle" fontSize="12" fill="var(--soft)">
            what if …?
          </text>
        )}
      </svg>
    </div>
  );
}
