import type { UnitFamily } from "@/core/bytes/formatBytes";
import type { Walk } from "@/core/plan/walk";

/** The staircase of a plan in CSS pixels. */
export interface StripGeometry {
  width: number;
  height: number;
  /** The foot of the staircase, above the marks of the steps. */
  foot: number;
  /** Where each moment stands, in the order of the moments. */
  at: number[];
  /** The three lines as points of an SVG polyline. */
  lines: { id: "pool" | "volume" | "fileSystem"; points: string; end: number }[];
  /** Marks of the steps: as long as they take, but never too short to be seen. */
  marks: { x: number; width: number }[];
  /** While fewer drives may fail than usual. */
  windows: { x: number; width: number; redundancy: number }[];
  days: { x: number; day: number }[];
  /** The figure at the top of the scale, in bytes. */
  most: number;
}

const LEFT = 10;
const RIGHT = 100;
const TOP = 10;
const MARKS = 26;
const LEAST_MARK = 4;

const niceDays = (days: number, most: number) => [1, 2, 5, 7, 14, 30, 60, 90, 180, 365].find((step) => days / step <= most) ?? 730;

/**
 * Where everything of the staircase stands. Time runs by expected hours; steps of minutes get a sliver of their own, so
 * that each moment has a place.
 *
 * @param size of the drawing in CSS pixels
 */
export function stripGeometry({ moments }: Walk, size: { width: number; height: number }, _family: UnitFamily): StripGeometry {
  const end = Math.max(1e-6, ...moments.map((moment) => moment.walked?.to ?? 0));
  const room = Math.max(60, size.width - LEFT - RIGHT);
  // Every step moves time on by at least a sliver; what is left of the width is shared by hours.
  const steps = moments.length - 1;
  const sliver = Math.min(LEAST_MARK, (room * 0.5) / Math.max(1, steps));
  const perHour = (room - sliver * steps) / end;
  const at: number[] = [LEFT];
  const marks: StripGeometry["marks"] = [];
  const begins: number[] = [];
  let slivers = 0;
  moments.slice(1).forEach((moment) => {
    const from = LEFT + slivers * sliver + (moment.walked?.from ?? 0) * perHour;
    slivers += 1;
    const to = LEFT + slivers * sliver + (moment.walked?.to ?? 0) * perHour;
    begins.push(from);
    at.push(Math.max(to, at.at(-1) ?? LEFT));
    marks.push({ x: from, width: Math.max(sliver, to - from) });
  });
  const foot = size.height - MARKS;
  const most = Math.max(1, ...moments.flatMap((moment) => [moment.capacities.pool, moment.capacities.volume, moment.capacities.fileSystem])) * 1.06;
  const y = (bytes: number) => foot - (bytes / most) * (foot - TOP);
  const line = (id: "pool" | "volume" | "fileSystem") => {
    const points = moments.flatMap((moment, i) => {
      const value = y(moment.capacities[id]).toFixed(1);
      const before = moments[i - 1];
      return before ? [`${(at[i] ?? 0).toFixed(1)},${y(before.capacities[id]).toFixed(1)}`, `${(at[i] ?? 0).toFixed(1)},${value}`] : [`${LEFT},${value}`];
    });
    const last = moments.at(-1);
    const edge = y(last?.capacities[id] ?? 0);
    return { id, points: [...points, `${LEFT + room + 6},${edge.toFixed(1)}`].join(" "), end: edge };
  };
  const windows = moments.flatMap((moment, i) => {
    const exposure = moment.walked?.exposure ?? [];
    const mark = marks[i - 1];
    if (exposure.length === 0 || !mark) return [];
    return [{ x: mark.x, width: mark.width, redundancy: Math.min(...exposure.map((each) => each.redundancy)) }];
  });
  const total = end / 24;
  const step = niceDays(total, 9);
  const xOf = (hours: number) => {
    const next = moments.findIndex((moment) => (moment.walked?.to ?? 0) > hours);
    const passed = next < 0 ? steps : Math.max(0, next - 1);
    return LEFT + passed * sliver + hours * perHour;
  };
  const days = total < 1 ? [] : Array.from({ length: Math.floor(total / step) + 1 }, (_, i) => ({ x: xOf(i * step * 24), day: i * step + 1 }));
  return { width: size.width, height: size.height, foot, at, lines: [line("pool"), line("volume"), line("fileSystem")], marks, windows, days, most };
}
