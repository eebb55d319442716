import { fileSystemCapacity } from "../box/capacities";
import { volumeOf } from "../box/find";
import type { Bytes } from "../bytes/bytes";
import { fullAfter } from "../data/fullAfter";
import { dataSetsOn } from "../data/stored";
import type { Volume } from "../document/plan";
import type { Finding } from "../findings/finding";
import { plainDayWords } from "../time/dateWords";
import { dayAfter } from "../time/days";
import type { Walk } from "../walk/moment";
import { oneOrMany } from "../words/counted";
import type { StepTimes } from "./stepTimes";

/** A step, or several that belong together, by which a volume gets more room. */
export interface Rise {
  /** The step at whose end the room is there, and the first of those that lead to it. */
  step: string;
  first: string;
  /** What folders see from then on, in bytes. */
  capacity: Bytes;
  /** In days from the beginning of the plan: when the work begins, when the room is there. */
  begins: number;
  there: number;
  /** After how many days the volume would be full without it; null if not within 50 years. */
  fullWithout: number | null;
  /** When the work must begin so that the room is there in time, in days; null where there is no hurry. */
  latestBegin: number | null;
}

/** What becomes of one volume over time. */
export interface Demand {
  volume: Volume;
  /** What folders see of it now, in bytes. */
  capacity: Bytes;
  /** After how many days it is full, as the plan is and without it; null if not within 50 years. */
  fullWithPlan: number | null;
  fullWithoutPlan: number | null;
  rises: Rise[];
}

/** A change of what folders see of a volume: at which moment, from when on, and of how much. */
interface Change {
  at: number;
  there: number;
  capacity: Bytes;
}

/** The changes of a volume's capacity along a walk, in days. */
function changesOf({ moments }: Walk, volume: string, times: readonly StepTimes[]): Change[] {
  const capacities = moments.map((moment) => {
    const then = volumeOf(moment.state.plan, volume);
    return then ? fileSystemCapacity(then) : 0;
  });
  return capacities.flatMap((capacity, at) =>
    at > 0 && capacity === capacities[at - 1]
      ? []
      : [{ at, there: at === 0 ? 0 : (times[at - 1]?.end ?? 0), capacity }],
  );
}

function demandOf(made: Walk, volume: Volume, times: readonly StepTimes[]): Demand {
  const { moments, plan } = made;
  const [begin, ...changes] = changesOf(made, volume.id, times);
  const rises: Rise[] = [];
  let full: number | null = null;
  // What folders see until the next change.
  let { capacity, there: since } = begin ?? { capacity: 0, there: 0 };
  const now = capacity;
  let lastRise = 0;
  for (const { at, there, capacity: then } of changes) {
    const fullWithout = fullAfter(plan, volume, capacity, since);
    if (fullWithout !== null && fullWithout < there) full ??= fullWithout;
    if (then > capacity) {
      const from = lastRise;
      const first = moments.findIndex((moment, k) => k > from && moment.walked?.done);
      const begins = times[first - 1]?.start ?? 0;
      const latestBegin = fullWithout === null ? null : fullWithout - (there - begins);
      const [step, opening] = [moments[at]?.after ?? "", moments[first]?.after ?? ""];
      rises.push({ step, first: opening, capacity: then, begins, there, fullWithout, latestBegin });
      lastRise = at;
    }
    [capacity, since] = [then, there];
  }
  full ??= fullAfter(plan, volume, capacity, since);
  return { volume, capacity: now, fullWithPlan: full, fullWithoutPlan: fullAfter(plan, volume, now), rises };
}

/**
 * What becomes of the volumes that hold data sets: when each is full, as the plan is and without it, and by when the
 * steps that give it room must begin.
 *
 * @param times when the steps run, in days; those of a calendar, or `timesByHours`
 * @example demand(walk(plan), timesByHours(walk(plan)))[0].fullWithoutPlan // 212
 */
export function demand(made: Walk, times: readonly StepTimes[]): Demand[] {
  return made.plan.pools.flatMap((pool) =>
    pool.volumes
      .filter((volume) => dataSetsOn(made.plan, volume.id).length > 0)
      .map((volume) => demandOf(made, volume, times)),
  );
}

const daysWords = (days: number) =>
  days < 1.5 ? "a day" : days < 60 ? `${Math.round(days)} days` : `${Math.round(days / 30.44)} months`;

/**
 * That room comes too late, by how much, and when its work would have to begin; for each step, by its id.
 *
 * @param start the plan's first day as YYYY-MM-DD
 */
export function lateFindings(demands: readonly Demand[], start: string, deliveryDays: number): Map<string, Finding[]> {
  const found = new Map<string, Finding[]>();
  for (const { volume, rises } of demands) {
    for (const rise of rises) {
      if (rise.fullWithout === null || rise.latestBegin === null || rise.there <= rise.fullWithout) continue;
      const late = rise.there - rise.fullWithout;
      const hope =
        rise.latestBegin < 0
          ? "Even begun on the first day it would come too late: delete or move something until then."
          : "The work for it must begin by " +
            `${plainDayWords(dayAfter(start, rise.latestBegin))}${deliveryDays > 0 ? `, and drives be ordered ${oneOrMany(deliveryDays, "a day", "days")} before` : ""}.`;
      const finding: Finding = {
        code: "too-late",
        severity: "warn",
        message:
          `The new space comes on ${plainDayWords(dayAfter(start, rise.there))}, ${daysWords(late)} after ` +
          `${volume.name || "the volume"} reaches its reserve ` +
          `(${plainDayWords(dayAfter(start, rise.fullWithout))}). ${hope}`,
        drives: [],
      };
      found.set(rise.step, [...(found.get(rise.step) ?? []), finding]);
    }
  }
  return found;
}
