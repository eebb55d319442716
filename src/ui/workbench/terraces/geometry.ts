import type { Band } from "@/core/bands/band";
import type { Bytes } from "@/core/bytes/bytes";
import type { UnitFamily } from "@/core/bytes/formatBytes";
import { type Plan, type Drive } from "@/core/document/plan";
import type { Prediction } from "@/core/prediction/predict";
import type { SwatchKind } from "../../kit/Swatch";
import { groupOfDrive, roleOfDrive } from "@/core/box/members";
import { driveInBay } from "@/core/box/bays";

/** One rectangle of a drive's column. `band` names the band that it is part of. */
export interface Segment {
  kind: SwatchKind;
  y: number;
  height: number;
  band: BandRef | null;
}

/** A band by its group and its place in it, from the bottom up. */
export interface BandRef {
  group: string;
  index: number;
}

export interface Column {
  bay: number;
  x: number;
  width: number;
  drive: Drive | null;
  /** The top of the drive; the foot of the plot for an empty bay. */
  top: number;
  segments: Segment[];
}

/** A group's columns that stand side by side without another between. */
export interface Run {
  pool: string;
  group: string;
  from: number;
  to: number;
  /** Whether it is the group's widest run, which carries its name. */
  named: boolean;
}

/** A piece of a band across the gap between two neighbouring columns, so that the terraces run through. */
export interface Bridge {
  x: number;
  width: number;
  segment: Segment;
}

export interface Tick {
  bytes: Bytes;
  y: number;
}

export interface TerraceGeometry {
  width: number;
  height: number;
  /** The y of the drives' feet. */
  foot: number;
  /** The bytes that the full height stands for, and the y of their top. */
  most: Bytes;
  top: number;
  columns: Column[];
  bridges: Bridge[];
  runs: Run[];
  ticks: Tick[];
}

export const AXIS_WIDTH = 52;
const MOST_COLUMN = 118;
export const LEAST_COLUMN = 42;

/** What stands around the drives, in CSS pixels. */
export interface Frame {
  axis: number;
  top: number;
  /** Below the foot of the drives, for the lower half of the axis's 0. */
  bottom: number;
  gap: number;
  leastColumn: number;
}

const FULL: Frame = { axis: AXIS_WIDTH, top: 14, bottom: 6, gap: 10, leastColumn: LEAST_COLUMN };

/** A picture among many, without an axis. */
export const SMALL: Frame = { axis: 0, top: 1, bottom: 1, gap: 4, leastColumn: 4 };

/** How much taller than the largest drive the picture is where a free bay can be filled. */
const GHOST_ROOM = 4 / 3;

const share = (bytes: Bytes, height: number, most: Bytes) => (bytes / most) * height;

/** Round figures of the chosen unit from 0 to the top, at most six of them. */
function ticksUpTo(most: Bytes, family: UnitFamily): Bytes[] {
  const unit = family === "TB" ? 1e12 : 2 ** 40;
  const small = family === "TB" ? 1e9 : 2 ** 30;
  const base = most >= unit ? unit : small;
  const steps = [1, 2, 5, 10, 20, 50, 100, 200, 500].map((step) => step * base);
  const step = steps.find((each) => most / each <= 6.5) ?? most;
  return Array.from({ length: Math.floor(most / step) + 1 }, (_, i) => i * step);
}

/** How much of a member's length, from the bottom, holds data, and what the rest holds. */
function splitOfMember(band: Band, place: number): { kind: SwatchKind; share: number }[] {
  const count = band.members.length;
  switch (band.scheme.kind) {
    case "striped-mirrors": {
      const copy = count % 2 === 0 ? place % 2 === 1 : null;
      if (copy !== null) return [{ kind: copy ? "copies" : "data", share: 1 }];
      return [
        { kind: "data", share: 0.5 },
        { kind: "copies", share: 0.5 },
      ];
    }
    case "dedicated-parity":
      return [{ kind: place >= count - band.scheme.parity ? "parity" : "data", share: 1 }];
    case "single":
    case "stripe":
      return [{ kind: "data", share: 1 }];
    case "mirror":
      return [{ kind: place === 0 ? "data" : "copies", share: 1 }];
    case "chunk-parity":
    case "parity":
      return [
        { kind: "data", share: (count - band.scheme.parity) / count },
        { kind: "parity", share: band.scheme.parity / count },
      ];
  }
}

/** The pattern of a drive that stands beside a pool. */
const BESIDE = { "hot spare": "spare", "read cache": "cache", "write log": "log" } as const;

/** What of a drive lies where, in bytes from its start. */
function layersOf(
  plan: Plan,
  prediction: Pick<Prediction, "pools">,
  drive: Drive,
): { kind: SwatchKind; from: Bytes; to: Bytes; band: BandRef | null }[] {
  const owner = groupOfDrive(plan, drive.id);
  const role = roleOfDrive(plan, drive.id)?.role;
  const group = prediction.pools.flatMap((pool) => pool.groups).find((each) => each.id === owner?.group.id);
  const room = group?.rooms.find((each) => each.drive === drive.id);
  if (!group || !room) return [{ kind: role ? BESIDE[role] : "idle", from: 0, to: drive.bytes, band: null }];
  const layers: { kind: SwatchKind; from: Bytes; to: Bytes; band: BandRef | null }[] = [];
  if (room.systemReserve > 0) layers.push({ kind: "reserve", from: 0, to: room.systemReserve, band: null });
  let at = room.systemReserve;
  const pieces = group.bands
    .flatMap((band, index) => {
      const place = band.members.findIndex((each) => each.drive === drive.id);
      const member = band.members[place];
      return member ? [{ band, index, place, member }] : [];
    })
    .sort((a, b) => a.member.offset - b.member.offset);
  for (const { band, index, place, member } of pieces) {
    const start = member.offset - band.metadata;
    if (start > at) layers.push({ kind: "idle", from: at, to: start, band: null });
    if (band.metadata > 0)
      layers.push({ kind: "reserve", from: start, to: member.offset, band: { group: group.id, index } });
    let from = member.offset;
    for (const part of splitOfMember(band, place)) {
      const to = from + member.length * part.share;
      layers.push({ kind: part.kind, from, to, band: { group: group.id, index } });
      from = to;
    }
    at = member.offset + member.length;
  }
  if (drive.bytes > at) layers.push({ kind: "idle", from: at, to: drive.bytes, band: null });
  return layers;
}

/** Where neighbouring columns are in the same band at the same height, the band runs on between them. */
function bridgesOf(columns: readonly Column[]): Bridge[] {
  return columns.slice(1).flatMap((right, i) => {
    const left = columns[i];
    if (!left) return [];
    return left.segments.flatMap((segment) => {
      const { band } = segment;
      if (!band || segment.kind === "reserve") return [];
      const other = right.segments.find(
        (each) => each.band?.group === band.group && each.band.index === band.index && Math.abs(each.y - segment.y) < 1,
      );
      return other
        ? [
            {
              x: left.x + left.width,
              width: right.x - left.x - left.width,
              segment: { ...segment, kind: other.kind === segment.kind ? segment.kind : "copies" },
            },
          ]
        : [];
    });
  });
}

function runsOf(plan: Plan, columns: readonly Column[]): Run[] {
  const runs: Run[] = [];
  columns.forEach((column, i) => {
    const owner = column.drive ? groupOfDrive(plan, column.drive.id) : null;
    if (!owner) return;
    const last = runs.at(-1);
    if (last && last.group === owner.group.id && last.to === i - 1) last.to = i;
    else runs.push({ pool: owner.pool.id, group: owner.group.id, from: i, to: i, named: false });
  });
  for (const group of new Set(runs.map((run) => run.group))) {
    const widest = runs
      .filter((run) => run.group === group)
      .reduce((best, run) => (run.to - run.from > best.to - best.from ? run : best));
    widest.named = true;
  }
  return runs;
}

/**
 * Where everything of the terraces stands: bays side by side, each drive as tall as it is large, cut into segments.
 *
 * @param size of the drawing in CSS pixels, the axis included
 * @param frame what stands around the drives; `SMALL` for a picture among many
 * @returns positions in CSS pixels, with y downwards
 */
export function terraceGeometry(
  plan: Plan,
  prediction: Pick<Prediction, "pools">,
  size: { width: number; height: number },
  family: UnitFamily,
  frame: Frame = FULL,
): TerraceGeometry {
  const { bays } = plan.box;
  const inBays = plan.drives.filter((drive) => "bay" in drive.place);
  const largest = Math.max(...(inBays.length > 0 ? inBays : [{ bytes: 4e12 }]).map((drive) => drive.bytes));
  // Where a drive could come, larger ones than there are have room in the picture too.
  const most = frame === FULL && inBays.length < bays && plan.pools.length > 0 ? largest * GHOST_ROOM : largest;
  const plotHeight = Math.max(40, size.height - frame.top - frame.bottom);
  const gap = bays > 12 ? frame.gap * 0.4 : frame.gap;
  const column = Math.max(frame.leastColumn, Math.min(MOST_COLUMN, (size.width - frame.axis - gap * bays) / bays));
  const foot = frame.top + plotHeight;
  const yOf = (bytes: Bytes) => foot - share(bytes, plotHeight, most);
  const columns = Array.from({ length: bays }, (_, i): Column => {
    const drive = driveInBay(plan, i + 1);
    const x = frame.axis + gap / 2 + i * (column + gap);
    const segments = drive
      ? layersOf(plan, prediction, drive).map(({ kind, from, to, band }) => {
          const least = kind === "reserve" ? 2 : 0;
          const height = Math.max(least, yOf(from) - yOf(to));
          return { kind, y: yOf(from) - height, height, band };
        })
      : [];
    return { bay: i + 1, x, width: column, drive, top: drive ? yOf(drive.bytes) : foot, segments };
  });
  return {
    width: frame.axis + bays * (column + gap),
    height: foot + frame.bottom,
    foot,
    most,
    top: frame.top,
    columns,
    bridges: bridgesOf(columns),
    runs: runsOf(plan, columns),
    ticks: ticksUpTo(most, family).map((bytes) => ({ bytes, y: yOf(bytes) })),
  };
}
