"use client";

import { useMemo, type KeyboardEvent, type PointerEvent } from "react";
import { formatBytes } from "@/core/bytes/formatBytes";
import { contentsOf } from "@/core/bands/contents";
import type { Plan } from "@/core/document/plan";
import { nameOfDrive } from "@/core/drives/nameOfDrive";
import { goneIn } from "@/core/box/gone";
import { isGone } from "@/core/drives/driveState";
import { fateOf } from "@/core/failures/fate";
import type { Prediction } from "@/core/prediction/predict";
import { PatternRect } from "../../kit/Swatch";
import { useRoving } from "../../kit/useRoving";
import { useUnit } from "../../preferences/preferences";
import { AXIS_WIDTH, type BandRef, type Column, type Segment, type TerraceGeometry } from "./geometry";

interface PictureProps {
  prediction: Pick<Prediction, "pools">;
  geometry: TerraceGeometry;
  failed: ReadonlySet<string>;
  hurt: HurtBands;
  /** What the chosen step has done to bands, in a word, by group and index. */
  changes: ReadonlyMap<string, string>;
  lit: BandRef | null;
}

interface Props extends PictureProps {
  plan: Plan;
  onToggleFailed: (drive: string) => void;
  onLight: (band: BandRef | null) => void;
}

const sameBand = (a: BandRef | null, b: BandRef | null) =>
  a !== null && b !== null && a.group === b.group && a.index === b.index;
const key = (ref: BandRef) => `${ref.group}/${ref.index}`;

/** The box at one moment: bays as columns to scale, cut by bands that run level across them. */
export function Terraces({ plan, onToggleFailed, onLight, ...picture }: Props) {
  const { geometry, failed, lit } = picture;
  const [unit] = useUnit();
  const { columns, width, height, foot } = geometry;
  const list = useRoving<HTMLDivElement>("across");
  return (
    <div className="relative" style={{ width, height }}>
      <TerracesPicture {...picture} />
      <div ref={list} className="contents">
        {columns.map((column) => (
          <ColumnButton
            key={column.bay}
            column={column}
            foot={foot}
            failed={failed}
            onToggleFailed={onToggleFailed}
            lit={lit}
            onLight={onLight}
            name={column.drive ? nameOfDrive(column.drive, unit) : ""}
          />
        ))}
      </div>
      {plan.drives.every((drive) => "shelf" in drive.place) && (
        <p className="absolute top-1/3 right-4 left-16 text-center text-soft">
          The box is empty. Drag drives from the shelf into its bays, or select them on the shelf and make a group.
        </p>
      )}
    </div>
  );
}

/** The picture alone; what answers to the hand is laid over it. */
export function TerracesPicture({ prediction, geometry, failed, hurt, changes, lit }: PictureProps) {
  const [unit] = useUnit();
  const { columns, bridges, ticks, width, height, foot } = geometry;
  const labels = useMemo(() => bandLabels(prediction, geometry, unit), [prediction, geometry, unit]);
  return (
    <svg width={width} height={height} aria-hidden="true" className="absolute inset-0">
      {ticks.map((tick) => (
        <g key={tick.bytes}>
          <line x1={AXIS_WIDTH - 4} x2={width} y1={tick.y} y2={tick.y} stroke="var(--line)" />
          <text x={AXIS_WIDTH - 8} y={tick.y + 4} textAnchor="end" fontSize="12" fill="var(--soft)">
            {tick.bytes === 0 ? "0" : formatBytes(tick.bytes, unit).replace(/\.0+(?=\D)/, "")}
          </text>
        </g>
      ))}
      {/* One group for all: each with an opacity of its own would be a layer of its own to paint. */}
      {[false, true].map((isLit) => (
        <g key={String(isLit)} opacity={lit !== null && !isLit ? 0.12 : 0.4}>
          {bridges
            .filter(
              ({ segment }) =>
                sameBand(lit, segment.band) === isLit && !(segment.band && hurt.get(key(segment.band)) === "lost"),
            )
            .map(({ x, width: across, segment }) => (
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
      ))}
      {columns.map((column) => (
        <ColumnPicture
          key={column.bay}
          column={column}
          foot={foot}
          failed={column.drive !== null && failed.has(column.drive.id)}
          gone={column.drive !== null && isGone(column.drive)}
          hurt={hurt}
          lit={lit}
        />
      ))}
      {labels.map((label) => {
        const lost = hurt.get(label.key) === "lost";
        return (
          <text
            key={label.key}
            x={label.x}
            y={label.y}
            textAnchor="middle"
            fontSize="13"
            fontWeight="600"
            fill={lost ? "var(--on-geranium)" : "var(--on-data)"}
            stroke={lost ? "var(--geranium)" : "var(--data)"}
            strokeWidth={lost ? 8 : 4}
            strokeLinejoin="round"
            paintOrder="stroke"
          >
            {lost ? "lost" : changes.has(label.key) ? `${label.text}, ${changes.get(label.key)}` : label.text}
          </text>
        );
      })}
    </svg>
  );
}

/** Bands that have lost members: how many more they bear, or that they are lost. */
export type HurtBands = ReadonlyMap<string, "degraded" | "bare" | "lost">;

/** Those of a box in which drives are gone, or fail in a what-if. */
export function hurtBands(plan: Plan, prediction: Pick<Prediction, "pools">, inWhatIf: ReadonlySet<string>): HurtBands {
  const failed = new Set([...inWhatIf, ...goneIn(plan)]);
  const hurt = new Map<string, "degraded" | "bare" | "lost">();
  if (failed.size === 0) return hurt;
  for (const group of prediction.pools.flatMap((pool) => pool.groups)) {
    group.bands.forEach((band, index) => {
      const fate = fateOf([band], failed);
      if (fate.kind === "lost") hurt.set(key({ group: group.id, index }), "lost");
      else if (fate.kind === "degraded")
        hurt.set(key({ group: group.id, index }), fate.redundancy === 0 ? "bare" : "degraded");
    });
  }
  return hurt;
}

function ColumnPicture({
  column,
  foot,
  failed,
  gone,
  hurt,
  lit,
}: {
  column: Column;
  foot: number;
  /** In a what-if: crossed out with a dashed line. */
  failed: boolean;
  /** In fact: crossed out with a solid one, and nearly blank. */
  gone: boolean;
  hurt: HurtBands;
  lit: BandRef | null;
}) {
  const { x, width, top, segments, drive } = column;
  if (!drive)
    return (
      <rect x={x} y={foot - 26} width={width} height={26} fill="none" stroke="var(--line)" strokeDasharray="2 4" />
    );
  return (
    <g>
      <g opacity={gone ? 0.18 : failed ? 0.4 : 1}>
        {segments.map((segment, i) => {
          const state = segment.band ? hurt.get(key(segment.band)) : undefined;
          const dim = lit !== null && !sameBand(lit, segment.band);
          return (
            <g key={i} opacity={dim ? 0.35 : 1} className="transition-opacity">
              <PatternRect kind={segment.kind} x={x} y={segment.y + 0.5} width={width} height={segment.height - 1} />
              {state === "lost" && (
                <PatternRect kind="lost" x={x} y={segment.y + 0.5} width={width} height={segment.height - 1} />
              )}
            </g>
          );
        })}
        {bandsOfColumn(segments).map(({ band, y, height }) => {
          const state = hurt.get(key(band));
          if (!state && !sameBand(lit, band)) return null;
          const stroke = sameBand(lit, band) ? "var(--ink)" : state === "lost" ? "var(--geranium)" : "var(--parity)";
          return (
            <rect
              key={key(band)}
              x={x + 1}
              y={y + 1.5}
              width={width - 2}
              height={Math.max(0, height - 3)}
              fill="none"
              stroke={stroke}
              strokeWidth={state === "degraded" && !sameBand(lit, band) ? 2 : 3}
              strokeDasharray={state === "bare" ? "8 4" : undefined}
            />
          );
        })}
      </g>
      {gone && (
        <rect
          x={x + 1.5}
          y={top + 1.5}
          width={width - 3}
          height={Math.max(0, foot - top - 3)}
          fill="none"
          stroke="var(--geranium)"
          strokeWidth="3"
        />
      )}
      {(failed || gone) && (
        <g stroke="var(--geranium)" strokeWidth="4" strokeLinecap="round" strokeDasharray={gone ? undefined : "10 9"}>
          <line x1={x + 6} x2={x + width - 6} y1={top + 6} y2={foot - 6} />
          <line x1={x + width - 6} x2={x + 6} y1={top + 6} y2={foot - 6} />
        </g>
      )}
    </g>
  );
}

/** Each band of a column with its whole extent. */
function bandsOfColumn(segments: readonly Segment[]): { band: BandRef; y: number; height: number }[] {
  const extents = new Map<string, { band: BandRef; y: number; foot: number }>();
  for (const { band, y, height, kind } of segments) {
    if (!band || kind === "reserve") continue;
    const old = extents.get(key(band));
    extents.set(key(band), { band, y: Math.min(y, old?.y ?? Infinity), foot: Math.max(y + height, old?.foot ?? 0) });
  }
  return [...extents.values()].map(({ band, y, foot }) => ({ band, y, height: foot - y }));
}

/** What each band stores, written once on its widest run of neighbouring columns, where there is room for it. */
function bandLabels(
  prediction: Pick<Prediction, "pools">,
  geometry: TerraceGeometry,
  unit: "TB" | "TiB",
): { key: string; x: number; y: number; text: string }[] {
  return prediction.pools
    .flatMap((pool) => pool.groups)
    .flatMap((group) =>
      group.bands.flatMap((band, index) => {
        const ref = { group: group.id, index };
        const holders = geometry.columns.flatMap((column) => {
          const segment = column.segments.find((each) => each.kind === "data" && sameBand(each.band, ref));
          return segment ? [{ column, segment }] : [];
        });
        const runs = holders.reduce<(typeof holders)[]>((soFar, holder) => {
          const last = soFar.at(-1);
          if (last && last.at(-1)?.column.bay === holder.column.bay - 1) last.push(holder);
          else soFar.push([holder]);
          return soFar;
        }, []);
        const run = runs.reduce<typeof holders>((best, each) => (each.length > best.length ? each : best), []);
        const [first] = run;
        const last = run.at(-1);
        if (!first || !last || first.segment.height < 20) return [];
        const left = first.column.x;
        const right = last.column.x + last.column.width;
        if (right - left < 58) return [];
        return [
          {
            key: key(ref),
            x: (left + right) / 2,
            y: first.segment.y + first.segment.height / 2 + 4.5,
            text: formatBytes(contentsOf(band).data, unit),
          },
        ];
      }),
    );
}

interface ColumnButtonProps {
  column: Column;
  foot: number;
  failed: ReadonlySet<string>;
  onToggleFailed: (drive: string) => void;
  lit: BandRef | null;
  onLight: (band: BandRef | null) => void;
  name: string;
}

/**
 * The part of a column that answers to the hand: pressing it fails the drive, pointing or arrow keys light its bands.
 */
function ColumnButton({ column, foot, failed, onToggleFailed, lit, onLight, name }: ColumnButtonProps) {
  const { drive, segments } = column;
  if (!drive) return null;
  const bands = bandsOfColumn(segments);
  const onPointerMove = (event: PointerEvent<HTMLButtonElement>) => {
    const y = event.nativeEvent.offsetY + column.top;
    onLight(bands.find((each) => y >= each.y && y <= each.y + each.height)?.band ?? null);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key !== "ArrowUp" && event.key !== "ArrowDown") return;
    event.preventDefault();
    const at = bands.findIndex((each) => sameBand(each.band, lit));
    const next =
      event.key === "ArrowUp" ? Math.min(bands.length - 1, at + 1) : Math.max(0, at < 0 ? bands.length - 1 : at - 1);
    onLight(bands[next]?.band ?? null);
  };
  return (
    <button
      type="button"
      aria-pressed={failed.has(drive.id)}
      aria-label={`What if ${name} fails? Arrows up and down: its bands`}
      onClick={() => onToggleFailed(drive.id)}
      onPointerMove={onPointerMove}
      onPointerLeave={() => onLight(null)}
      onKeyDown={onKeyDown}
      onBlur={() => onLight(null)}
      className="absolute rounded-sm"
      style={{ left: column.x, top: column.top, width: column.width, height: Math.max(24, foot - column.top) }}
    />
  );
}
