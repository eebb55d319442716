import type { Drive, Plan, Step } from "../document/plan";
import { keepBackup } from "../simulator/doings/elsewhere";
import { befall, type Mishap } from "../simulator/mishaps";
import { Practice } from "../simulator/practice";
import { placeOf } from "../simulator/simulatedBox";
import { daysBetween } from "../time/days";
import type { InPlace } from "./adapted";
import type { Adviser, Errand } from "./errands";
import { lossesNow, type Loss, type Stored, storedOf } from "./losses";
import type { Answer, Script, Strike } from "./script";

/** How fine the box of a rehearsal is: about two thousandths of its largest drive. */
export const REHEARSAL_BLOCKS = 512;

/** What a rehearsal is played with. */
export interface Play extends Adviser {
  /** The plan as it is rehearsed: every drive that it names is at hand. */
  plan: Plan;
  /** Its drives as the plan has them, some of them still to be bought. */
  asked: readonly Drive[];
  script: Script;
  stored: readonly Stored[];
}

/** Something that has gone wrong, and what it is about. */
export type Trouble =
  | { kind: "gone"; drive: string; state: "failed" | "missing" }
  | { kind: "refused" | "stopped"; step: string; why: string }
  | { kind: "power-cut" }
  | { kind: "fire" }
  | { kind: "deleted"; volume: string };

/** What comes at an hour: a mishap, or a mark at which the one who plays looks in. */
export interface Coming {
  at: number;
  mishap: Mishap | null;
  mark?: number;
}

/** An hour of a step, since its turn, at which the one who plays looks in. */
export interface Mark {
  step: string;
  hours: number;
  mark: number;
}

/** A rehearsal at a moment. It is changed as it is played; `forkStage` makes another. */
export interface Stage {
  readonly play: Play;
  practice: Practice;
  /** The steps of the plan that are still to be begun. */
  ahead: readonly Step[];
  /** Whether the turn of the first of them has come. */
  turned: boolean;
  /** When the turn of each came, in hours. */
  turns: Map<string, number>;
  /** What comes, in its order, and the strikes and marks of steps whose turn has not come yet. */
  coming: Coming[];
  later: readonly Strike[];
  marks: readonly Mark[];
  /** What the owner does before the plan goes on. */
  errands: Errand[];
  /** Until which hour nothing is begun: a delivery is waited for. */
  waitsUntil: number;
  /** The box as a plan document: at the beginning, and as of so much of what it has said. */
  readonly first: Plan;
  plan: Plan;
  heard: number;
  /** What has gone wrong and is not answered yet, and what was put off until an hour. */
  troubles: Trouble[];
  putOff: { until: number; troubles: Trouble[] } | null;
  answers: Answer[];
  /** Whether advice is due: something has gone since the last. */
  needsAdvice: boolean;
  advisedTimes: number;
  /** What stands in whose place since. */
  inPlace: InPlace;
  /** Steps of the plan that came to nothing. */
  passedOver: string[];
  /** Hours in which some group lacked a drive, or had one that was still being filled. */
  degradedHours: number;
  /** Whether anything has happened yet, and the hour of the last mishap. */
  isStruck: boolean;
  struckAt: number;
  losses: Map<string, Loss>;
  /** How much of what is stored could not be read before anything happened, by data, from 0 to 1. */
  readonly lostBefore: ReadonlyMap<string, number>;
  isOver: boolean;
  /** The box just after the first mishap, as a plan document, and the steps that were begun since, in their order. */
  wayOut: { from: Plan; steps: Step[] } | null;
}

/** The plan as it is rehearsed: its drives at hand, and nothing under way or behind it. */
function rehearsed(plan: Plan): Plan {
  const { history: _history, underWay: _underWay, log: _log, ...rest } = plan;
  return {
    ...rest,
    drives: plan.drives.map(({ toBuy: _toBuy, ...drive }): Drive => drive),
    steps: plan.steps.filter(({ disabled }) => !disabled),
  };
}

/** What a backup is called of which the history knows when it was made, and not where. */
const MADE_BEFORE = "the backup made before the plan";

/** How many days ago an instant was; at the beginning, where nobody says which day it is. */
const daysSince = (at: string, day: string | null): number =>
  day === null ? 0 : Math.max(0, daysBetween(at.slice(0, 10), day));

/** By what a plan is rehearsed. */
export interface PlaySetting extends Adviser {
  script: Script;
}

/**
 * Sets a plan up to be rehearsed.
 *
 * @param blocks how many the largest drive has
 * @example playTo(begin(plan, { script, family: "TB", day: null }), 12) // "until": twelve hours have passed
 */
export function begin(plan: Plan, { script, ...adviser }: PlaySetting, blocks = REHEARSAL_BLOCKS): Stage {
  const own = rehearsed(plan);
  const play: Play = { ...adviser, plan: own, asked: plan.drives, script, stored: storedOf(own) };
  const first = { ...own, steps: [] };
  const practice = Practice.of(own, { blocks, seed: script.seed });
  for (const { pool, rate, at } of plan.doneBefore?.backedUp ?? [])
    keepBackup(practice.box, { pool, rate, to: MADE_BEFORE, hours: -24 * daysSince(at, adviser.day) });
  const atFirst = script.strikes.filter(({ step }) => step === undefined);
  return {
    play,
    practice,
    ahead: own.steps,
    turned: false,
    turns: new Map(),
    coming: atFirst.map(({ hours, mishap }) => ({ at: hours, mishap })).sort((a, b) => a.at - b.at),
    later: script.strikes.filter(({ step }) => step !== undefined),
    marks: [],
    errands: [],
    waitsUntil: 0,
    first,
    plan: first,
    heard: 0,
    troubles: [],
    putOff: null,
    answers: [],
    needsAdvice: false,
    advisedTimes: 0,
    inPlace: new Map(),
    passedOver: [],
    degradedHours: 0,
    isStruck: false,
    struckAt: 0,
    losses: new Map(),
    lostBefore: lostBefore(play, practice),
    isOver: false,
    wayOut: null,
  };
}

/** What cannot be read before anything happens: drives of the plan may have failed already. */
function lostBefore({ plan, day, stored }: Play, practice: Practice): Map<string, number> {
  if (practice.box.drives.every(({ state }) => state === "works")) return new Map();
  return new Map(lossesNow({ plan, practice, day, hours: 0 }, stored).map(({ of, share }) => [of, share]));
}

/** Another that is as this one is, and goes its own way from here. */
export const forkStage = (stage: Stage): Stage => ({
  ...stage,
  practice: stage.practice.fork(),
  turns: new Map(stage.turns),
  coming: [...stage.coming],
  errands: [...stage.errands],
  troubles: [...stage.troubles],
  answers: [...stage.answers],
  inPlace: new Map(stage.inPlace),
  passedOver: [...stage.passedOver],
  losses: new Map(stage.losses),
  wayOut: stage.wayOut && { ...stage.wayOut, steps: [...stage.wayOut.steps] },
});

/** Puts something into its place among what comes. */
export function schedule(stage: Stage, coming: Coming): void {
  const at = stage.coming.findIndex((each) => each.at > coming.at);
  stage.coming.splice(at < 0 ? stage.coming.length : at, 0, coming);
}

/**
 * Lets something befall the box now; what is about a drive that it does not have (the plan has changed since) does not.
 *
 * @example strike(stage, { kind: "drive-dies", drive: "d3" })
 */
export function strike(stage: Stage, mishap: Mishap): void {
  const { practice } = stage;
  if ("drive" in mishap && placeOf(practice.box, mishap.drive) < 0) return;
  stage.isStruck = true;
  stage.struckAt = practice.box.hours;
  befall(practice, mishap);
  if (mishap.kind === "deletion") stage.troubles.push({ kind: "deleted", volume: mishap.volume });
}

/** What a step of the plan is called when it is done once more. */
export const again = (id: string): string => `${id}-again`;

/** Takes down what cannot be read now; what was lost before stays so. */
export function takeLosses(stage: Stage): void {
  const { play, practice, losses, struckAt: hours } = stage;
  for (const loss of lossesNow({ plan: play.plan, practice, day: play.day, hours }, play.stored)) {
    if (loss.share <= (stage.lostBefore.get(loss.of) ?? 0) + 1e-6) continue;
    const before = losses.get(loss.of);
    if (!before || (before.from !== null && loss.from === null)) losses.set(loss.of, loss);
  }
}
