"use client";

import { useEffect, useMemo, useRef } from "react";
import { useDroppable } from "@dnd-kit/core";
import { formatBytes } from "@/core/bytes/formatBytes";
import type { Drive } from "@/core/document/plan";
import { shortSize } from "@/core/drives/nameOfDrive";
import { predict } from "@/core/prediction/predict";
import type { Stage } from "@/core/rehearsal/stage";
import { activityOf, type Activity, unfilledIn } from "@/core/simulator/activity";
import { PatternRect } from "../kit/Swatch";
import { useSize } from "../kit/useSize";
import { useUnit } from "../preferences/preferences";
import {
  AXIS_WIDTH,
  type Column,
  type Frame,
  LEAST_COLUMN,
  terraceGeometry,
  type TerraceGeometry,
} from "../workbench/terraces/geometry";
import { driveWords } from "./mishapWords";
import type { Playing } from "./usePlayed";

interface Props {
  playing: Playing;
  /** Told of a drive that is pressed: something is to befall it. */
  onPick: (drive: string) => void;
}

/** What stands around the drives. */
const FRAME: Frame = { axis: AXIS_WIDTH, top: 14, bottom: 6, gap: 10, leastColumn: LEAST_COLUMN };

/** The drop target of a bay. */
export const bayDrop = (drive: string): string => `drive ${drive}`;

/** What a drive does, in a word, and by a sign. */
function stateOf(
  drive: Drive,
  active: Activity | undefined,
  isUnfilled: boolean,
): { sign: string; words: string; bad: boolean } {
  if (drive.state === "failed") return { sign: "✕", words: "dead", bad: true };
  if (drive.state === "missing") return { sign: "✕", words: "out", bad: true };
  if (!active)
    return isUnfilled ? { sign: "◌", words: "not filled", bad: true } : { sign: "·", words: "rests", bad: false };
  if (active.reads && active.writes) return { sign: "↕", words: "rewritten", bad: false };
  if (!active.writes) return { sign: "↑", words: "read", bad: false };
  const share = active.front === null ? "" : ` ${Math.floor(active.front * 100)} %`;
  return { sign: "↓", words: `written${share}`, bad: false };
}

/**
 * The box while a plan is played on it: each drive as tall as it is large, what lies on it, how far the work has come
 * on it, and what it does. A drive can be pressed, or a mishap dropped on it.
 */
export function PlayedBox({ playing, onPick }: Props) {
  const { view, onFrame, played } = playing;
  const { plan } = view;
  const [unit] = useUnit();
  const [place, measured] = useSize<HTMLDivElement>();
  const size = measured ?? { width: 640, height: 300 };
  const prediction = useMemo(() => predict(plan, unit), [plan, unit]);
  const geometry = useMemo(
    () =>
      terraceGeometry(plan, prediction, { width: size.width, height: Math.max(140, size.height - 46) }, unit, FRAME),
    [plan, prediction, size.width, size.height, unit],
  );
  const active = activityOf(played.stage.practice);
  const unfilled = unfilledIn(played.stage.practice);
  const fronts = useFronts(geometry, onFrame, played.stage);
  const outside = plan.drives.filter(
    (drive) =>
      !("bay" in drive.place) && plan.pools.some(({ groups }) => groups.some((g) => g.drives.includes(drive.id))),
  );
  return (
    <>
      <div ref={place} className="relative h-[22rem] overflow-x-auto desk:h-auto desk:min-h-[200px] desk:flex-1">
        <div className="relative" style={{ width: geometry.width, height: geometry.height + 46 }}>
          <Picture geometry={geometry} fronts={fronts} active={active} />
          {geometry.columns.map((column) => (
            <Bay
              key={column.bay}
              column={column}
              geometry={geometry}
              active={active}
              unfilled={unfilled}
              onPick={onPick}
            />
          ))}
        </div>
      </div>
      {outside.length > 0 && (
        <p className="shrink-0 text-[0.87rem] text-geranium">
          Out of the box: {outside.map((drive) => driveWords(plan, drive.id, unit)).join(", ")}
        </p>
      )}
    </>
  );
}

/** The lines at which work has come on each drive: moved at each frame, without the rest of the page. */
function useFronts(geometry: TerraceGeometry, onFrame: Playing["onFrame"], stage: Stage) {
  const lines = useRef(new Map<string, SVGGElement>());
  useEffect(() => {
    const tops = new Map(geometry.columns.flatMap(({ drive, top }) => (drive ? [[drive.id, top]] : [])));
    const { foot } = geometry;
    const draw = ({ practice }: Stage) => {
      const active = activityOf(practice);
      for (const [id, line] of lines.current) {
        const front = active.get(id)?.front ?? null;
        const top = tops.get(id) ?? foot;
        line.style.display = front === null ? "none" : "";
        if (front !== null) line.style.transform = `translateY(${foot - front * (foot - top)}px)`;
      }
    };
    onFrame(draw);
    draw(stage);
    return () => onFrame(null);
  }, [geometry, onFrame, stage]);
  return lines;
}

interface PictureProps {
  geometry: TerraceGeometry;
  fronts: ReturnType<typeof useFronts>;
  active: ReadonlyMap<string, Activity>;
}

function Picture({ geometry, fronts, active }: PictureProps) {
  const [unit] = useUnit();
  const { columns, bridges, ticks, foot, width, height } = geometry;
  return (
    <svg width={width} height={height} aria-hidden="true" className="absolute inset-0">
      {ticks.map(({ y, bytes }) => (
        <g key={bytes}>
          <line x1={AXIS_WIDTH - 4} x2={width} y1={y} y2={y} stroke="var(--line)" />
          <text x={AXIS_WIDTH - 8} y={y + 4} textAnchor="end" fontSize="12" fill="var(--soft)">
            {bytes === 0 ? "0" : formatBytes(bytes, unit).replace(/\.0+(?=\D)/, "")}
          </text>
        </g>
      ))}
      <g opacity={0.4}>
        {bridges.map(({ x, width: across, segment }) => (
          <PatternRect
            key={`${x} ${segment.y}`}
            kind={segment.kind}
            x={x}
            y={segment.y + 0.5}
            width={across}
            height={segment.height - 1}
          />
        ))}
      </g>
      {columns.map((column) => {
        const { drive, x, width: across, top, bay, segments } = column;
        if (!drive)
          return (
            <rect
              key={bay}
              x={x}
              y={foot - 26}
              width={across}
              height={26}
              fill="none"
              stroke="var(--line)"
              strokeDasharray="2 4"
            />
          );
        const isGone = drive.state !== undefined;
        const does = active.get(drive.id);
        return (
          <g key={bay}>
            <g opacity={isGone ? 0.18 : 1}>
              {segments.map(({ kind, y, height: tall }, i) => (
                <PatternRect key={i} kind={kind} x={x} y={y + 0.5} width={across} height={tall - 1} />
              ))}
            </g>
            {isGone && <Cross x={x} top={top} width={across} foot={foot} />}
            {does && !isGone && <Flow x={x + across / 2} top={top} foot={foot} does={does} />}
            <g
              ref={(line) => {
                if (line) fronts.current.set(drive.id, line);
                return () => void fronts.current.delete(drive.id);
              }}
              style={{ display: "none" }}
            >
              <rect x={x - 3} y={-1.5} width={across + 6} height={3} fill="var(--ground)" />
              <rect x={x - 3} y={-1} width={across + 6} height={2} fill="var(--ink)" />
            </g>
          </g>
        );
      })}
    </svg>
  );
}

function Cross({ x, top, width, foot }: { x: number; top: number; width: number; foot: number }) {
  return (
    <g stroke="var(--geranium)" strokeWidth="4" strokeLinecap="round">
      <rect
        x={x + 1.5}
        y={top + 1.5}
        width={width - 3}
        height={Math.max(0, foot - top - 3)}
        fill="none"
        strokeWidth="3"
      />
      <line x1={x + 6} x2={x + width - 6} y1={top + 6} y2={foot - 6} />
      <line x1={x + width - 6} x2={x + 6} y1={top + 6} y2={foot - 6} />
    </g>
  );
}

/** Dashes that run up where a drive is read, and down where it is written. */
function Flow({ x, top, foot, does }: { x: number; top: number; foot: number; does: Activity }) {
  const line = (at: number, className: string) => (
    <g>
      <line x1={at} x2={at} y1={top + 8} y2={foot - 8} stroke="var(--ground)" strokeWidth="7" strokeLinecap="round" />
      <line
        x1={at}
        x2={at}
        y1={top + 8}
        y2={foot - 8}
        stroke="var(--ink)"
        strokeWidth="3"
        strokeDasharray="5 9"
        className={className}
      />
    </g>
  );
  const both = does.reads && does.writes;
  return (
    <>
      {does.reads && line(both ? x - 7 : x, "flow-up")}
      {does.writes && line(both ? x + 7 : x, "flow-down")}
    </>
  );
}

interface BayProps {
  column: Column;
  geometry: TerraceGeometry;
  active: ReadonlyMap<string, Activity>;
  unfilled: ReadonlySet<string>;
  onPick: (drive: string) => void;
}

/** A drive's column as a button, and what it does under it. */
function Bay({ column, geometry, active, unfilled, onPick }: BayProps) {
  const [unit] = useUnit();
  const { drive, x, width, bay, top } = column;
  const { setNodeRef, isOver } = useDroppable({ id: drive ? bayDrop(drive.id) : `empty ${bay}`, disabled: !drive });
  const does = drive && stateOf(drive, active.get(drive.id), unfilled.has(drive.id));
  return (
    <>
      {drive && (
        <button
          ref={setNodeRef}
          type="button"
          onClick={() => onPick(drive.id)}
          aria-label={`Let something happen to the ${shortSize(drive, unit)} drive in bay ${bay}: ${does?.words ?? ""}`}
          className={`absolute rounded-sm ${isOver ? "outline-3 outline-geranium" : ""}`}
          style={{ left: x, top, width, height: Math.max(24, geometry.foot - top) }}
        />
      )}
      <p
        className="absolute overflow-hidden text-center text-[0.8rem] leading-tight"
        style={{ left: x - 4, top: geometry.foot + 4, width: width + 8 }}
      >
        <span className="block font-semibold">{drive ? shortSize(drive, unit) : "free"}</span>
        {does && (
          <span className={`block ${does.bad ? "font-semibold text-geranium" : "text-soft"}`}>
            <span aria-hidden>{does.sign} </span>
            {does.words}
          </span>
        )}
      </p>
    </>
  );
}
