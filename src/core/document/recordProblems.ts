import { isDay } from "../time/days";
import { MOST_RECORD_CHARACTERS } from "./limits";
import type { Plan } from "./plan";
import type { Problem } from "./problem";
import { recordCharacters } from "./recordCharacters";

interface Timed {
  start: string;
  end?: string;
}

function timeProblems({ start, end }: Timed, pointer: string): Problem[] {
  const notADay = [start, ...(end === undefined ? [] : [end])].find((at) => !isDay(at.slice(0, 10)));
  if (notADay !== undefined) {
    const message = `There is no day ${notADay.slice(0, 10)}. Write a day of the calendar as YYYY-MM-DD.`;
    return [{ code: "no-such-day", message, pointer }];
  }
  if (end === undefined || Date.parse(end) >= Date.parse(start)) return [];
  const message = `This ended at ${end}, before it began at ${start}. Correct one of the two.`;
  return [{ code: "ends-before-it-begins", message, pointer }];
}

function twice(ids: readonly string[], pointer: string, what: string): Problem[] {
  const seen = new Set<string>();
  return ids.flatMap((id, i) => {
    const message = `The id "${id}" is already that of ${what}. Give this one another.`;
    if (seen.has(id)) return [{ code: "duplicate-id", message, pointer: `${pointer}/${i}` }];
    seen.add(id);
    return [];
  });
}

/**
 * What cannot be true of a plan's records: an entry that ends before it begins, a day that there is not, an id given
 * twice, a step under way that is not in the plan, more than a plan file holds.
 *
 * @example recordProblems({ ...plan, underWay: [{ step: "s99", start: "2026-11-26T10:00Z" }] })[0].code
 * // "no-such-step"
 */
export function recordProblems(plan: Plan): Problem[] {
  const { history = [], log = [], underWay = [] } = plan;
  const steps = new Set(underWay.length > 0 ? plan.steps.map(({ id }) => id) : []);
  const isTooMuch = (history.length > 0 || log.length > 0) && recordCharacters(plan) > MOST_RECORD_CHARACTERS;
  const tooMuch =
    `The history and the log have more than ${MOST_RECORD_CHARACTERS / 1024} KiB together. Take the oldest ` +
    "entries out.";
  return [
    ...(isTooMuch ? [{ code: "too-many-records", message: tooMuch, pointer: "/history" }] : []),
    ...twice(
      history.map(({ id }) => id),
      "/history",
      "an entry",
    ),
    ...twice(
      log.map(({ id }) => id),
      "/log",
      "an entry",
    ),
    ...twice(
      underWay.map(({ step }) => step),
      "/underWay",
      "a step under way",
    ),
    ...history.flatMap((entry, i) => timeProblems(entry, `/history/${i}`)),
    ...log.flatMap((entry, i) => timeProblems(entry, `/log/${i}`)),
    ...underWay.flatMap(({ step, start, readings = [] }, i): Problem[] => [
      ...(steps.has(step)
        ? []
        : [
            {
              code: "no-such-step",
              message: `"${step}" is no step of the plan. Take it out here, or put the step in.`,
              pointer: `/underWay/${i}/step`,
            },
          ]),
      ...timeProblems({ start }, `/underWay/${i}/start`),
      ...readings.flatMap(({ at }, r) => timeProblems({ start, end: at }, `/underWay/${i}/readings/${r}`)),
    ]),
  ];
}
