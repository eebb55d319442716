import type { UnitFamily } from "../bytes/formatBytes";
import type { Plan, Step } from "../document/plan";
import type { Hours } from "../time/hours";
import type { WalkedMoment } from "../walk/moment";
import { walkPlan } from "../walk/walkPlan";
import { nextStep } from "./asPlanned";
import { differencesOf, type Difference } from "./differences";
import { nameOf, type PrintedArray, type PrintedBox } from "./printedBox";
import type { Answers } from "./question";
import { recognise, type Recognised } from "./recognise";

/** Up to which moment it is looked whether the box is there already: further than that nobody goes unread. */
const MOST_MOMENTS = 32;

/** Where a box stands on the way that its plan describes. */
export interface Standing {
  /** How many steps of the plan are done, by what the box shows. */
  at: number;
  recognised: Recognised;
  /** In what it differs from the plan there. */
  differences: Difference[];
  /** The steps that are done, as far as they were to be. */
  done: string[];
  /** The step that runs now, with the share of it that is done and how much is left; null where none does. */
  running: { step: Step; share: number; left: Hours } | null;
}

/** The rest of a plan after so many steps, as a plan of its own that begins there. */
const restOf = (plan: Plan, moment: WalkedMoment, at: number): Plan => ({
  ...moment.state.plan,
  steps: plan.steps.slice(at),
});

/** The steps that lie behind a moment. */
const doneUntil = (moments: readonly WalkedMoment[], at: number): string[] =>
  moments.slice(1, at + 1).flatMap(({ walked }) => (walked?.done ? [walked.step.id] : []));

/** What weighs when a box is held against a moment: work that runs is on its way, and no difference. */
const weightOf = (differences: readonly Difference[]): number =>
  differences.filter(({ code }) => code !== "array-running").length;

/** What of each drive an array goes through, in bytes. */
const lengthOf = ({ places }: PrintedArray): number =>
  Math.min(...places.flatMap((place) => (place?.bytes ? [place.bytes] : [])), Number.MAX_SAFE_INTEGER);

/**
 * How much of the work on arrays is done, from 0 to 1. Those that share drives are worked on one after the other: one
 * that waits has nothing done, and one that has what the others are still being filled with has all of it.
 */
function shareOf(arrays: readonly PrintedArray[]): number {
  const busy = arrays.filter(({ running }) => running);
  const filled = new Set(busy.flatMap((array) => [...array.filling, ...array.replacing].map(nameOf)));
  const ended = arrays.filter(
    ({ running, places }) => !running && places.some((place) => place && filled.has(nameOf(place))),
  );
  const sum = (some: readonly PrintedArray[], done: (array: PrintedArray) => number) =>
    some.reduce((all, array) => all + lengthOf(array) * done(array), 0);
  const all = sum([...busy, ...ended], () => 1);
  return all > 0 ? (sum(busy, ({ running }) => running?.done ?? 0) + sum(ended, () => 1)) / all : 0;
}

/**
 * How much of a step is left: what the kernel expects where it says so, between what the plan's rates leave at least
 * and at most. What waits is not in what it says.
 */
function leftOf(cost: Hours, arrays: readonly PrintedArray[]): Hours {
  const rest = 1 - shareOf(arrays);
  const planned = { low: cost.low * rest, expected: cost.expected * rest, high: cost.high * rest };
  const works = arrays.flatMap(({ running }) => running ?? []);
  const minutes = Math.max(...works.map(({ minutesLeft }) => minutesLeft ?? -1));
  if (minutes < 0 || works.some(({ done }) => done === null)) return planned;
  const kernel = minutes / 60;
  return { low: Math.min(planned.low, kernel), expected: kernel, high: Math.max(planned.high, kernel) };
}

/** The step of the plan, at its beginning from there on, that is what is under way on the box. */
function runningStep(recognised: Recognised, plan: Plan): Standing["running"] {
  const [body] = recognised.running;
  if (!body) return null;
  const [first] = recognised.plan.steps.filter((step) => !step.disabled);
  const step = first?.kind === body.kind ? first : null;
  if (!step) return null;
  // One that the plan has began from how the plan has the box: what it takes out may have gone already.
  const began = nextStep(plan)?.id === step.id ? plan : recognised.plan;
  const walked = walkPlan({ ...began, steps: [step] }).moments[1]?.walked;
  const arrays = recognised.arrays.map(({ printed }) => printed);
  return walked
    ? {
        step: plan.steps.find(({ id }) => id === step.id) ?? step,
        share: shareOf(arrays),
        left: leftOf(walked.cost.hours, arrays),
      }
    : null;
}

/**
 * Holds a box against its plan: at the moment with which it agrees best, now where several are as good.
 *
 * @param at when it was read, as an instant
 * @param today as YYYY-MM-DD
 * @example standingOf(printed, plan, "TB", "2026-11-26T10:00Z").differences // [] where the box is as planned
 */
export function standingOf(
  printed: PrintedBox,
  plan: Plan,
  family: UnitFamily,
  at: string,
  answers: Answers = {},
): Standing {
  const { moments } = walkPlan(plan, family, undefined, at.slice(0, 10));
  let best: Standing | null = null;
  for (const [i, moment] of moments.slice(0, MOST_MOMENTS + 1).entries()) {
    // A step that is not carried out leaves the box as it was.
    if (i > 0 && !moment.walked?.done) continue;
    const before = restOf(plan, moment, i);
    const recognised = recognise(printed, before, answers);
    const differences = differencesOf(recognised, before, family, at);
    if (!best || weightOf(differences) < weightOf(best.differences))
      best = { at: i, recognised, differences, done: doneUntil(moments, i), running: runningStep(recognised, before) };
    if (weightOf(differences) === 0) break;
  }
  if (!best) throw new RangeError("A plan has at least its beginning.");
  return best;
}
