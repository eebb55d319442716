import type { Plan } from "../document/plan";
import type { Adviser } from "./errands";
import { type Outcome, outcomeOf } from "./outcome";
import { playTo } from "./play";
import type { Owner, Script, Strike } from "./script";
import { begin, schedule, forkStage, REHEARSAL_BLOCKS, type Stage, strike } from "./stage";
import { atAnyMoment, type Happening, onceAStep, toDrives, whenItsTurnComes, withHandsInIt } from "./whatCanHappen";

/** A moment of a plan at which mishaps are tried. */
export interface Instant {
  /** The step in which it lies; none before the first. */
  step?: string;
  /** How far into the step, from 0 to 1, and how many hours since its turn came. */
  share: number;
  hours: number;
  happenings: readonly Happening[];
}

/** A mishap at an instant: which of its happenings. */
export interface At {
  instant: number;
  happening: number;
}

/** A plan made ready to be tried. */
export interface Prepared {
  plan: Plan;
  seed: number;
  instants: readonly Instant[];
  /** What it comes to with nothing going wrong. */
  usual: Outcome;
  /** The box at each instant. */
  stages: readonly Stage[];
}

/** How a plan is tried. */
export interface TrialSetting extends Adviser {
  seed: number;
  /** Singles at three instants of each step, and all kinds; pairs at two, of drives alone. */
  of: "singles" | "pairs";
  blocks?: number;
}

/** At which shares of a step. */
const SHARES = { singles: [0.1, 0.5, 0.9], pairs: [0.25, 0.75] } as const;

const NOTHING_WRONG = { answers: [], otherwise: "advised" } as const;

/** When the turn of each step comes with nothing going wrong, and how long it takes. */
function stepsOf(plan: Plan, { seed, blocks, ...adviser }: TrialSetting): { id: string; hours: number }[] {
  const stage = begin(plan, { ...adviser, script: { seed, strikes: [], ...NOTHING_WRONG } }, blocks);
  playTo(stage, Infinity);
  const turns = [...stage.turns];
  return turns.map(([id, at], i) => ({ id, hours: (turns[i + 1]?.[1] ?? stage.practice.box.hours) - at }));
}

/** The instants of a plan, before it is known what can happen at them. */
function instantsOf(plan: Plan, setting: TrialSetting): Omit<Instant, "happenings">[] {
  const steps = stepsOf(plan, setting);
  const shares = setting.of === "singles" ? [0, ...SHARES.singles] : SHARES.pairs;
  const before = setting.of === "singles" || steps.length === 0 ? [{ share: 0, hours: 0 }] : [];
  return [
    ...before,
    ...steps.flatMap(({ id, hours }) => shares.map((share) => ({ step: id, share, hours: share * hours }))),
  ];
}

/** What is tried at an instant. */
function happeningsAt(
  stage: Stage,
  at: Omit<Instant, "happenings">,
  of: TrialSetting["of"],
  opened: boolean,
): Happening[] {
  if (of === "pairs") return toDrives(stage, ["drive-dies", "unreadable", "goes-missing"]);
  const [next] = stage.ahead;
  if (at.step === undefined) return [...atAnyMoment(stage), ...onceAStep(stage)];
  if (at.share === 0) return next ? whenItsTurnComes(stage, next) : [];
  const [first, middle] = SHARES.singles;
  return [
    ...atAnyMoment(stage),
    ...(at.share === first && opened ? withHandsInIt(stage) : []),
    ...(at.share === middle ? onceAStep(stage) : []),
  ];
}

const baysOf = ({ practice: { box } }: Stage): string => box.drives.map(({ bay }) => bay ?? "").join();

/**
 * Makes a plan ready to be tried: it is carried out once with nothing going wrong, and kept as it is at each instant.
 *
 * @example prepare(plan, { seed: 1, of: "singles", family: "TB", day: null }).instants.length // 4 for each step, and 1
 */
export function prepare(plan: Plan, setting: TrialSetting): Prepared {
  const { seed, of, blocks = REHEARSAL_BLOCKS, ...adviser } = setting;
  const bare = instantsOf(plan, setting);
  const script: Script = { seed, strikes: [], ...NOTHING_WRONG };
  const stage = begin(plan, { ...adviser, script }, blocks);
  const marks = bare.map(({ step, hours }, mark) => ({ step, hours, mark }));
  stage.coming = marks.flatMap(({ step, hours, mark }) =>
    step === undefined ? [{ at: hours, mishap: null, mark }] : [],
  );
  stage.marks = marks.flatMap(({ step, ...rest }) => (step === undefined ? [] : [{ step, ...rest }]));
  const stages: Stage[] = [];
  const instants: Instant[] = [];
  let bays = baysOf(stage);
  for (;;) {
    const stop = playTo(stage, Infinity);
    if (typeof stop !== "object") break;
    const at = bare[stop.mark];
    if (!at) continue;
    if (at.share === 0) bays = baysOf(stage);
    const saved = forkStage(stage);
    saved.coming = [];
    saved.marks = [];
    stages.push(saved);
    instants.push({ ...at, happenings: happeningsAt(saved, at, of, baysOf(saved) !== bays) });
  }
  return { plan, seed, instants, usual: outcomeOf(stage), stages };
}

/** A case as it is rehearsed from the beginning: what strikes when, and what the owner does. */
export function scriptOf(
  { instants, seed }: Pick<Prepared, "instants" | "seed">,
  ats: readonly At[],
  owner: Owner,
): Script {
  const strikes = ats.flatMap(({ instant, happening }): Strike[] => {
    const at = instants[instant];
    const what = at?.happenings[happening];
    return (what?.mishaps ?? []).map(({ after, mishap }) => ({
      ...(at?.step === undefined ? {} : { step: at.step }),
      hours: (at?.hours ?? 0) + after,
      mishap,
    }));
  });
  return { seed, strikes, answers: [], otherwise: owner };
}

/** Lets something happen to a box at its instant. */
function happen(stage: Stage, { mishaps }: Happening): void {
  for (const { after, mishap } of mishaps)
    if (after === 0) strike(stage, mishap);
    else schedule(stage, { at: stage.practice.box.hours + after, mishap });
}

const withOwner = (stage: Stage, owner: Owner): Stage => ({
  ...stage,
  play: { ...stage.play, script: { ...stage.play.script, otherwise: owner } },
});

function toTheEnd(stage: Stage): Outcome {
  playTo(stage, Infinity);
  return outcomeOf(stage);
}

/**
 * Runs one case to its end.
 *
 * @example trySingle(prepared, { instant: 5, happening: 0 }, "advised").became // "whole"
 */
export function trySingle({ stages, instants }: Prepared, { instant, happening }: At, owner: Owner): Outcome | null {
  const [stage, what] = [stages[instant], instants[instant]?.happenings[happening]];
  if (!stage || !what) return null;
  const own = withOwner(forkStage(stage), owner);
  happen(own, what);
  return toTheEnd(own);
}

/** A second mishap after a first, and what came of both. */
export interface Second {
  second: At;
  outcome: Outcome;
}

/** Lets each of what can happen at an instant happen to a box as it is, and runs it to its end. */
function trySeconds(stage: Stage, { instants }: Prepared, instant: number, from: number): Second[] {
  return (instants[instant]?.happenings ?? []).flatMap((what, happening): Second[] => {
    if (happening < from) return [];
    const own = forkStage(stage);
    own.coming = own.coming.filter(({ mark }) => mark === undefined);
    own.marks = [];
    happen(own, what);
    return [{ second: { instant, happening }, outcome: toTheEnd(own) }];
  });
}

/**
 * Runs all pairs of which one mishap is the first: the others strike later, or at the same instant after it.
 *
 * @example tryPairs(prepared, { instant: 0, happening: 0 }, "advised").length // as many as there are mishaps after it
 */
export function tryPairs(prepared: Prepared, { instant, happening }: At, owner: Owner): Second[] {
  const { stages, instants } = prepared;
  const [saved, at] = [stages[instant], instants[instant]];
  const what = at?.happenings[happening];
  if (!saved || !what) return [];
  const stage = withOwner(forkStage(saved), owner);
  const now = stage.practice.box.hours;
  const marks = instants.flatMap(({ step, hours }, mark) => (mark > instant && step ? [{ step, hours, mark }] : []));
  stage.marks = marks.filter(({ step }) => step !== at.step);
  happen(stage, what);
  const seconds = trySeconds(stage, prepared, instant, happening + 1);
  for (const each of marks)
    if (each.step === at.step) schedule(stage, { at: now + each.hours - at.hours, mishap: null, mark: each.mark });
  const reached = new Set<number>();
  for (;;) {
    const stop = playTo(stage, Infinity);
    if (typeof stop !== "object") break;
    reached.add(stop.mark);
    seconds.push(...trySeconds(stage, prepared, stop.mark, 0));
  }
  // Where it never came so far, the first was all that happened.
  const outcome = outcomeOf(stage);
  for (const { mark } of marks)
    if (!reached.has(mark))
      instants[mark]?.happenings.forEach((_, i) => seconds.push({ second: { instant: mark, happening: i }, outcome }));
  return seconds;
}
