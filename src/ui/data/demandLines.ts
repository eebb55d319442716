import { storedAfter } from "@/core/data/stored";
import { fileSystemCapacity } from "@/core/box/capacities";
import type { Bytes } from "@/core/bytes/bytes";
import { DEFAULT_HEADROOM } from "@/core/ledger/volumes";
import type { Walk } from "@/core/walk/moment";
import type { Dates } from "../calendar/useDates";

/** So far is looked ahead where nothing asks for more, and at most, in days. */
const LEAST_DAYS = 2 * 365;
const MOST_DAYS = 10 * 365;

/** What is stored in the volumes that hold data sets, and what they have space for, over the days of the plan. */
export interface DemandLines {
  /** How far it is looked ahead, in days. */
  days: number;
  /** What is stored after so many days. */
  storedAt: (day: number) => Bytes;
  /** What there is space for, but for what is kept free: from a day on until the next. */
  space: { day: number; bytes: Bytes }[];
}

/**
 * The two lines that one looks at: what grows, and what it has to fit in.
 *
 * @param walked the plan
 * @param dates when its steps run
 * @example demandLines(walkPlan(clinic), dates).space[0] // { day: 0, bytes: 1.1e13 }
 */
export function demandLines(
  { plan, moments }: Walk,
  { demands, times }: Pick<Dates, "demands" | "times">,
): DemandLines {
  const ids = new Set(demands.map((each) => each.volume.id));
  const ends = [
    ...demands.flatMap((each) => [each.fullWithPlan ?? 0, each.fullWithoutPlan ?? 0]),
    ...times.map((time) => time.end),
  ];
  const spaceAt = (index: number) =>
    (moments[index]?.state.plan.pools ?? [])
      .flatMap((pool) => pool.volumes)
      .filter((volume) => ids.has(volume.id))
      .reduce((sum, volume) => sum + fileSystemCapacity(volume) * (1 - (volume.headroomShare ?? DEFAULT_HEADROOM)), 0);
  return {
    days: Math.min(MOST_DAYS, Math.max(LEAST_DAYS, 1.3 * Math.max(...ends))),
    storedAt: (day) => demands.reduce((sum, each) => sum + storedAfter(plan, each.volume, day), 0),
    space: [{ day: 0, bytes: spaceAt(0) }, ...times.map((time, i) => ({ day: time.end, bytes: spaceAt(i + 1) }))],
  };
}

const HALF_YEAR = 365.25 / 2;

/** The same at moments that tell it: each half year, and when the space changes. */
export function demandRows({ days, storedAt, space }: DemandLines): { day: number; stored: Bytes; space: Bytes }[] {
  const changes = space.filter(({ bytes }, i) => i > 0 && bytes !== space[i - 1]?.bytes).map(({ day }) => day);
  const halves = Array.from({ length: Math.floor(days / HALF_YEAR) + 1 }, (_, i) => Math.round(i * HALF_YEAR));
  return [...new Set([...halves, ...changes])]
    .sort((a, b) => a - b)
    .map((day) => ({
      day,
      stored: storedAt(day),
      space: space.findLast((each) => each.day <= day)?.bytes ?? 0,
    }));
}
