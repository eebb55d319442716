import type { Step } from "../document/plan";
import { settle } from "./claims";
import { doingOf } from "./doings/registry";
import { type Running, waiting } from "./doing";
import { AT_ONCE } from "./pace";
import { groupWith, placeOf, type SimBox } from "./simulatedBox";
import { doUnits, endOf } from "./work";

/** Which drive is in which bay. */
const baysOf = (box: SimBox): string => box.drives.map(({ bay }) => bay ?? "").join();

/** The rules while a step is begun, which can say whom the box favours meanwhile; those of another box then stay. */
function favouring<T>(box: SimBox, step: Step, act: () => T): T {
  const { rules } = box;
  const own = "preference" in step && step.preference ? { ...rules, preference: step.preference } : rules;
  box.rules = own;
  const made = act();
  if (box.rules === own) box.rules = rules;
  return made;
}

/**
 * Begins a step: what is done at once is done, and the work that is left is there to be advanced.
 *
 * @returns why the box refuses it, as a sentence, where it does; nothing is done then
 * @example begin(box, { id: "s1", kind: "verify", pool: "p1" })
 */
export function begin(box: SimBox, step: Step): Running | string {
  const before = baysOf(box);
  const closed = box.rules.swapping !== "hot-swap" && box.pools.length > 0;
  const { swapMinutes } = box.rules;
  const doing = doingOf(step);
  const taken = doing.joins?.(step).some((id) => groupWith(box, placeOf(box, id)) !== null);
  if (taken) return "A drive that is to join is in use already.";
  const phases = favouring(box, step, () => doing.begin(box, step));
  if (typeof phases === "string") return phases;
  // However little it has to do: it is told, and looked at.
  const rest = AT_ONCE - phases.reduce((sum, { seconds }) => sum + seconds, 0);
  if (rest > 0) phases.push(waiting(rest));
  // It is opened, or the pool stopped, before the work, after it, or both.
  const times = closed ? Number(baysOf(box) !== before) + Number(doing.pullsLast?.(box, step) ?? false) : 0;
  return { step, phases, phase: 0, passed: 0, away: times * swapMinutes * 60 };
}

/** How many seconds a step takes in all. */
export const secondsOf = ({ phases, away }: Running): number =>
  away + phases.reduce((sum, { seconds }) => sum + seconds, 0);

/**
 * Lets time pass for a step under way.
 *
 * @param seconds at most so many
 * @returns how many of them were left when it ended; null while it goes on, or once it cannot
 * @example advance(box, running, 3600) // null: it goes on
 */
export function advance(box: SimBox, running: Running, seconds: number): number | null {
  let left = seconds;
  const away = Math.min(left, running.away);
  running.away -= away;
  left -= away;
  for (;;) {
    const phase = running.phases[running.phase];
    if (!phase) break;
    const needs = phase.seconds - running.passed;
    const passes = Math.min(left, needs);
    running.passed += passes;
    left -= passes;
    const ends = running.passed >= phase.seconds;
    // A hair more, so that it is the same however often the time that has passed was cut in pieces.
    const to = ends ? phase.units : Math.floor((running.passed / phase.seconds) * phase.units + 1e-7);
    if (to > phase.done && !doUnits(box, phase, to)) running.stuck = true;
    if (running.stuck) return null;
    if (!ends) return null;
    endOf(box, phase);
    running.phase += 1;
    running.passed = 0;
  }
  doingOf(running.step).end?.(box, running.step);
  settle(box);
  return left;
}

/** What came of a step. */
export type Came = { done: true; hours: number; erased: string[] } | { done: false; why: string };

/**
 * Does a step from its beginning to its end, with nothing in between.
 *
 * @example doStep(box, { id: "s1", kind: "verify", pool: "p1" }) // { done: true, hours: 7.4, erased: [] }
 */
export function doStep(box: SimBox, step: Step): Came {
  box.erased.clear();
  const running = begin(box, step);
  if (typeof running === "string") return { done: false, why: running };
  const seconds = secondsOf(running);
  box.hours += seconds / 3600;
  if (advance(box, running, Infinity) === null) return { done: false, why: "There is no space to work in." };
  return { done: true, hours: seconds / 3600, erased: [...box.erased] };
}
