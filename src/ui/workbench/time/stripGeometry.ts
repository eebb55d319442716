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
  /** While the loss of fewer drives is survived than usual. */
  windows: { step: string; x: number; width: number; redundancy: number }[];
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

/** How hours become pixels: every step moves time on by at least a sliver; what is left is shared by hours. */
interface Scale {
  room: number;
  sliver: number;
  /** Where an hour stands that comes after so many steps have begun or ended. */
  xAt: (stepsPassed: number, hours: number) => number;
}

function scaleOf(width: number, steps: number, end: number): Scale {
  const room = Math.max(60, width - LEFT - RIGHT);
  const sliver = Math.min(LEAST_MARK, (room * 0.5) / Math.max(1, steps));
  const perHour = (room - sliver * steps) / end;
  return { room, sliver, xAt: (passed, hours) => LEFT + passed * sliver + hours * perHour };
}

/** Where each moment stands, and the stretch of each step. */
function marksOf(times: Dates["times"], steps: number, { sliver, xAt }: Scale): Pick<StripGeometry, "at" | "marks"> {
  const at: number[] = [LEFT];
  const marks: StripGeometry["marks"] = [];
  for (let i = 0; i < steps; i += 1) {
    const from = xAt(i, (times[i]?.start ?? 0) * 24);
    const to = xAt(i + 1, (times[i]?.end ?? 0) * 24);
    at.push(Math.max(to, at.at(-1) ?? LEFT));
    marks.push({ x: from, width: Math.max(sliver, to - from) });
  }
  return { at, marks };
}

/** One of the three lines, in steps from moment to moment. */
function lineOf(
  id: StripGeometry["lines"][number]["id"],
  moments: Walk["moments"],
  at: readonly number[],
  y: (bytes: number) => number,
  edge: number,
): StripGeometry["lines"][number] {
  const heights = moments.map((moment) => y(moment.capacities[id]));
  const points = heights.flatMap((height, i) => {
    const x = (at[i] ?? 0).toFixed(1);
    const before = heights[i - 1];
    return before === undefined
      ? [`${LEFT},${height.toFixed(1)}`]
      : [`${x},${before.toFixed(1)}`, `${x},${height.toFixed(1)}`];
  });
  const end = heights.at(-1) ?? y(0);
  return { id, points: [...points, `${edge},${end.toFixed(1)}`].join(" "), end };
}

/** The stretches in which the loss of fewer drives is survived than usual. */
const windowsOf = (moments: Walk["moments"], marks: StripGeometry["marks"]): StripGeometry["windows"] =>
  moments.flatMap((moment, i) => {
    const exposure = moment.walked?.exposure ?? [];
    const mark = marks[i - 1];
    if (exposure.length === 0 || !mark) return [];
    const width = mark.width * Math.max(...exposure.map(({ share = 1 }) => share));
    const redundancy = Math.min(...exposure.map((each) => each.redundancy));
    return [{ step: moment.after ?? "", x: mark.x, width, redundancy }];
  });

/** About how wide a letter of a window's word is, in CSS pixels. */
const LETTER = 5.6;

/** A word over windows of lowered protection: neighbours that are alike share one. */
export interface WindowWord {
  /** Where its middle stands. */
  x: number;
  redundancy: number;
  text: string;
}

/**
 * A word for each stretch of windows, however narrow; where they are too close for all, the most exposed are written,
 * and of those the longest.
 *
 * @param windows in the order of time
 * @param width of the drawing, in CSS pixels
 * @example windowWords([{ step: "s1", x: 40, width: 3, redundancy: 0 }], 600)
 * // [{ x: 41.5, redundancy: 0, text: "survives none" }]
 */
export function windowWords(windows: StripGeometry["windows"], width: number): WindowWord[] {
  const runs: { x: number; end: number; redundancy: number }[] = [];
  for (const { x, width: wide, redundancy } of windows) {
    const last = runs.at(-1);
    if (last && last.redundancy === redundancy && x - last.end < LEAST_MARK) last.end = x + wide;
    else runs.push({ x, end: x + wide, redundancy });
  }
  const written: (WindowWord & { half: number })[] = [];
  for (const { x, end, redundancy } of runs.sort(
    (a, b) => a.redundancy - b.redundancy || b.end - b.x - (a.end - a.x),
  )) {
    const text = redundancy < 0 ? "lost already" : redundancy === 0 ? "survives none" : `survives only ${redundancy}`;
    const half = (text.length * LETTER) / 2;
    const middle = Math.max(half, Math.min(width - RIGHT - half, (x + end) / 2));
    if (written.every((other) => Math.abs(other.x - middle) > other.half + half + LETTER))
      written.push({ x: middle, redundancy, text, half });
  }
  return written.map(({ x, redundancy, text }) => ({ x, redundancy, text }));
}

/** The names of days along the foot; none for a plan of less than a day. */
function daysOf(total: number, schedule: Dates["schedule"], xOf: (hours: number) => number): StripGeometry["days"] {
  if (total < 1) return [];
  const step = niceDays(total, 9);
  return Array.from({ length: Math.floor(total / step) + 1 }, (_, i) => ({
    x: xOf(i * step * 24),
    label: schedule
      ? tickWords(schedule.begin + (i * step + 0.5) * 86_400_000, schedule.calendar.timeZone, total)
      : `day ${i * step + 1}`,
  }));
}

/**
 * Where everything of the staircase stands. Time runs by expected hours; steps of minutes get a sliver of their own, so
 * that each moment has a place.
 *
 * @param size of the drawing in CSS pixels
 * @param dates when the steps run: by the calendar, or by their hours alone
 */
export function stripGeometry(
  { moments, plan }: Walk,
  { width, height }: { width: number; height: number },
  { times, schedule }: Pick<Dates, "times" | "schedule">,
): StripGeometry {
  const end = Math.max(1e-6, ...times.map((time) => time.end * 24));
  const steps = moments.length - 1;
  const scale = scaleOf(width, steps, end);
  const { at, marks } = marksOf(times, steps, scale);
  const foot = height - MARKS;
  const all = moments.flatMap(({ capacities }) => [capacities.pool, capacities.volume, capacities.fileSystem]);
  const most = Math.max(1, ...all) * 1.06;
  const y = (bytes: number) => foot - (bytes / most) * (foot - TOP);
  const xOf = (hours: number) => {
    const next = times.findIndex((time) => time.end * 24 > hours);
    return scale.xAt(next < 0 ? steps : next, hours);
  };
  return {
    width,
    height,
    foot,
    at,
    lines: (["pool", "volume", "fileSystem"] as const).map((id) => lineOf(id, moments, at, y, LEFT + scale.room + 6)),
    marks,
    windows: windowsOf(moments, marks),
    // The end of the strip belongs to the names of the lines.
    days: daysOf(end / 24, schedule, xOf).filter((day) => day.x < width - RIGHT - 36),
    most,
    stored: storedLine(plan, end, xOf, y),
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

/** The moment that stands nearest to a place on the strip, in CSS pixels from its left. */
export const momentNear = ({ at }: Pick<StripGeometry, "at">, x: number): number =>
  at.reduce((best, each, i) => (Math.abs(each - x) < Math.abs((at[best] ?? 0) - x) ? i : best), 0);
