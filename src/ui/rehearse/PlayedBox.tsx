"use client";

import { useEffect, useMemo, useRef } from "react";
import { useDroppable } from "@dnd-kit/core";
import type { Drive } from "@/core/document/plan";
import { shortSize } from "@/core/drives/nameOfDrive";
import { predict } from "@/core/prediction/predict";
import type { Stage } from "@/core/rehearsal/stage";
import { activityOf, type Activity, unfilledIn } from "@/core/simulator/activity";
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
import { hurtBands, TerracesPicture } from "../workbench/terraces/Terraces";
import { driveWords } from "./mishapWords";
import type { Playing } from "./usePlayed";

interface Props {
  playing: Playing;
  /** Told of a drive that is pressed: something is to befall it. */
  onPick: (drive: string) => void;
}

/** What stands around the drives. */
const FRAME: Frame = { axis: AXIS_WIDTH, top: 14, bottom: 6, gap: 10, leastColumn: LEAST_COLUMN };

/** Nothing is thought of as failed here, and no band is pointed at. */
const NOTHING_CHOSEN = { failed: new Set<string>(), changes: new Map<string, string>(), lit: null };

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
  const hurt = useMemo(() => hurtBands(plan, prediction, NOTHING_CHOSEN.failed), [plan, prediction]);
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
          <TerracesPicture {...NOTHING_CHOSEN} prediction={prediction} geometry={geometry} hurt={hurt} />
          <Work geometry={geometry} fronts={fronts} active={active} />
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

interface WorkProps {
  geometry: TerraceGeometry;
  fronts: ReturnType<typeof useFronts>;
  active: ReadonlyMap<string, Activity>;
}

/** What is done on the drives, over the picture of them. */
function Work({ geometry, fronts, active }: WorkProps) {
  const { columns, foot, width, height } = geometry;
  return (
    <svg width={width} height={height} aria-hidden="true" className="absolute inset-0">
      {columns.map(({ drive, x, width: across, top, bay }) => {
        const does = drive && active.get(drive.id);
        return (
          drive && (
            <g key={bay}>
              {/* At the side: what a band stores is written in the middle. */}
              {does && <Flow x={x + Math.min(across / 2, 18)} top={top} foot={foot} does={does} />}
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
          )
        );
      })}
    </svg>
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
