import { storedAfter } from "@/core/data/stored";
import type { Plan } from "@/core/document/plan";
import type { Dates } from "../../calendar/useDates";
import type { Walk } from "@/core/walk/moment";

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
  days: { x: number; label: string }[];
  /** What is stored, where data sets say so. */
  stored: { points: string; end: number; bytes: number } | null;
  /** The figure at the top of the scale, in bytes. */
  most: number;
}

const LEFT = 10;
const RIGHT = 100;
const TOP = 10;
const MARKS = 26;
const LEAST_MARK = 4;

const niceDays = (days: number, most: number) =>
  [1, 2, 5, 7, 14, 30, 60, 90, 180, 365].find((step) => days / step <= most) ?? 730;

/**
 * Where everything of the staircase stands. Time runs by expected hours; steps of minutes get a sliver of their own, so
 * that each moment has a place.
 *
 * @param size of the drawing in CSS pixels
 * @param dates when the steps run: by the calendar, or by their hours alone
 */
export function stripGeometry(
  { moments, plan }: Walk,
  size: { width: number; height: number },
  { times, schedule }: Pick<Dates, "times" | "schedule">,
): StripGeometry {
  const fromOf = (i: number) => (times[i]?.start ?? 0) * 24;
  const toOf = (i: number) => (times[i]?.end ?? 0) * 24;
  const end = Math.max(1e-6, ...times.map((time) => time.end * 24));
  const room = Math.max(60, size.width - LEFT - RIGHT);
  // Every step moves time on by at least a sliver; what is left of the width is shared by hours.
  const steps = moments.length - 1;
  const sliver = Math.min(LEAST_MARK, (room * 0.5) / Math.max(1, steps));
  const perHour = (room - sliver * steps) / end;
  const at: number[] = [LEFT];
  const marks: StripGeometry["marks"] = [];
  const begins: number[] = [];
  let slivers = 0;
  moments.slice(1).forEach((_, i) => {
    const from = LEFT + slivers * sliver + fromOf(i) * perHour;
    slivers += 1;
    const to = LEFT + slivers * sliver + toOf(i) * perHour;
    begins.push(from);
    at.push(Math.max(to, at.at(-1) ?? LEFT));
    marks.push({ x: from, width: Math.max(sliver, to - from) });
  });
  const foot = size.height - MARKS;
  const most =
    Math.max(
      1,
      ...moments.flatMap((moment) => [moment.capacities.pool, moment.capacities.volume, moment.capacities.fileSystem]),
    ) * 1.06;
  const y = (bytes: number) => foot - (bytes / most) * (foot - TOP);
  const line = (id: "pool" | "volume" | "fileSystem") => {
    const points = moments.flatMap((moment, i) => {
      const value = y(moment.capacities[id]).toFixed(1);
      const before = moments[i - 1];
      return before
        ? [`${(at[i] ?? 0).toFixed(1)},${y(before.capacities[id]).toFixed(1)}`, `${(at[i] ?? 0).toFixed(1)},${value}`]
        : [`${LEFT},${value}`];
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
    const next = times.findIndex((time) => time.end * 24 > hours);
    const passed = next < 0 ? steps : next;
    return LEFT + passed * sliver + hours * perHour;
  };
  const days =
    total < 1
      ? []
      : Array.from({ length: Math.floor(total / step) + 1 }, (_, i) => ({
          x: xOf(i * step * 24),
          label: schedule
            ? tickWords(schedule.begin + (i * step + 0.5) * 86_400_000, schedule.calendar.timeZone, total)
            : `day ${i * step + 1}`,
        }));
  // The end of the strip belongs to the names of the lines.
  const labelled = days.filter((day) => day.x < size.width - RIGHT - 36);
  const stored = storedLine(plan, end, xOf, y);
  return {
    width: size.width,
    height: size.height,
    foot,
    at,
    lines: [line("pool"), line("volume"), line("fileSystem")],
    marks,
    windows,
    days: labelled,
    most,
    stored,
  };
}

/** The line of stored data in so many pieces. */
const PIECES = 24;

/** What is stored in all volumes that hold data sets, as it grows; null where there are none. */
function storedLine(
  plan: Plan,
  end: number,
  xOf: (hours: number) => number,
  y: (bytes: number) => number,
): StripGeometry["stored"] {
  if (!plan.dataSets) return null;
  const volumes = plan.pools.flatMap((pool) => pool.volumes);
  const at = Array.from({ length: PIECES + 1 }, (_, i) => (i * end) / PIECES);
  const bytes = at.map((hours) => volumes.reduce((sum, volume) => sum + storedAfter(plan, volume, hours / 24), 0));
  const points = at.map((hours, i) => `${xOf(hours).toFixed(1)},${y(bytes[i] ?? 0).toFixed(1)}`).join(" ");
  return { points, end: y(bytes.at(-1) ?? 0), bytes: bytes.at(-1) ?? 0 };
}

/** A day on the strip: with its year where the plan runs over years. */
const tickWords = (at: number, timeZone: string, days: number): string =>
  new Intl.DateTimeFormat(
    "en-GB",
    days > 300 ? { month: "short", year: "numeric", timeZone } : { day: "numeric", month: "short", timeZone },
  ).format(at);
