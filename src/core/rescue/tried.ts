import { applyCommand } from "../commands/applyCommand";
import { conditionOf } from "../box/condition";
import { rulesOfBox } from "../box/rulesOfBox";
import type { Command } from "../document/command";
import type { Plan, Step, StepBody } from "../document/plan";
import { leftOf } from "../failures/condition";
import { fateOfPool } from "../box/figures";
import { moduleOf } from "../steps/registry";
import { addHours, type Hours, NO_HOURS } from "../time/hours";
import type { WalkedMoment, WalkedStep } from "../walk/moment";
import { walkPlan } from "../walk/walkPlan";
import { type Course, type Draft, isPlanned } from "./drafts";
import type { RescueAct, RescueSetting } from "./rescue";

/** A course put into the plan on trial: its acts with what each takes, and what it comes to. */
export interface Tried {
  acts: RescueAct[];
  hours: Hours;
  /** Expected hours in which one more failed drive would lose data. */
  bareHours: number;
  blocks: string[];
  /** Whether the pool is whole at its end. */
  endsWhole: boolean;
}

/**
 * The beginning of a plan that is of a course: up to the last step that puts a drive in the place of one of the gaps,
 * and on for as long as the steps are of the course. A check that is planned for later is another one.
 */
function beginningOf({ steps }: Plan, course: Course): Step[] {
  const isOfIt = (step: Step) => course.drafts.some((draft) => draft.step && isPlanned(step, draft.step));
  let end = steps.reduce((last, step, i) => (moduleOf(step).answers !== undefined && isOfIt(step) ? i : last), -1);
  while (steps[end + 1] && isOfIt(steps[end + 1] as Step)) end += 1;
  return steps.slice(0, end + 1);
}

/** The steps of a course that the plan has already, each once. */
function plannedSteps(plan: Plan, course: Course): (Step | undefined)[] {
  const { drafts } = course;
  const left = beginningOf(plan, course);
  return drafts.map(({ step }) => {
    const at = step ? left.findIndex((each) => isPlanned(each, step)) : -1;
    return at < 0 ? undefined : left.splice(at, 1)[0];
  });
}

/** Where the steps go in that are not planned yet: after the last planned one before the first of them, or first. */
function placeOf(
  plan: Plan,
  course: Course,
  planned: readonly (Step | undefined)[],
): { before?: string; after?: string } {
  const firstNew = course.drafts.findIndex(({ step }, i) => step !== undefined && planned[i] === undefined);
  const earlier = planned.slice(0, Math.max(0, firstNew)).filter((step) => step !== undefined);
  const last = earlier.at(-1);
  if (last) return { after: last.id };
  const [first] = plan.steps;
  return first ? { before: first.id } : {};
}

/**
 * The command that puts a course into the plan at now: those of its steps that are not there yet, and the drives to
 * buy.
 *
 * @returns null where everything is planned already
 */
export function commandOf(
  plan: Plan,
  course: Course,
  name: string,
): Extract<Command, { kind: "insert-sequence" }> | null {
  const planned = plannedSteps(plan, course);
  const steps = course.drafts.flatMap(({ step }, i): StepBody[] => (step && !planned[i] ? [step] : []));
  if (steps.length === 0) return null;
  return { kind: "insert-sequence", name, ...placeOf(plan, course, planned), steps, drives: course.buys };
}

/** An act with what its step takes, once that is walked; or with its own hours. */
function actOf(
  { what, does, why, hours, step }: Draft,
  walked: WalkedStep | null,
  pool: string,
  left: number,
): RescueAct {
  const exposed = walked?.exposure.find((each) => each.pool === pool);
  return {
    what,
    does,
    why,
    hours: walked?.done ? walked.cost.hours : (hours ?? null),
    redundancyDuring: exposed?.redundancy ?? left,
    ...(exposed?.share === undefined ? {} : { share: exposed.share }),
    ...(step ? { step } : {}),
  };
}

const blocksOf = ({ findings }: WalkedStep): string[] =>
  findings.filter(({ severity }) => severity === "block").map(({ message }) => message);

/** The plan without the steps that come after a course: they take nothing of it. */
function upToItsEnd(plan: Plan, course: Course): Plan {
  return { ...plan, steps: beginningOf(plan, course) };
}

/** Walks a course and tells what each of its acts takes. */
export function tryCourse(setting: RescueSetting, course: Course): Tried {
  const { plan, pool, family, day } = setting;
  const planned = plannedSteps(plan, course);
  const command = commandOf(plan, course, "");
  const result = command ? applyCommand(plan, command) : { ok: true as const, plan };
  if (!result.ok) return { acts: [], hours: NO_HOURS, bareHours: Infinity, blocks: [result.reason], endsWhole: false };
  const { moments } = walkPlan(upToItsEnd(result.plan, course), family, undefined, day);
  const left = [...moments.slice(1)];
  const takeMoment = (body: StepBody): WalkedMoment | undefined => {
    const at = left.findIndex(({ walked }) => walked !== null && isPlanned(walked.step, body));
    return at < 0 ? undefined : left.splice(at, 1)[0];
  };
  const leftAt = ({ state }: WalkedMoment): number => {
    const then = state.plan.pools.find(({ id }) => id === pool.id);
    return then ? leftOf(fateOfPool(state.plan, then, rulesOfBox(state.plan))) : -1;
  };
  let before = moments[0] as WalkedMoment;
  const acts: RescueAct[] = [];
  const blocks: string[] = [];
  course.drafts.forEach((draft, i) => {
    const moment = draft.step && takeMoment(draft.step);
    acts.push({
      ...actOf(draft, moment?.walked ?? null, pool.id, leftAt(before)),
      ...(planned[i] ? { planned: planned[i] } : {}),
    });
    if (moment?.walked && !moment.walked.done) blocks.push(...blocksOf(moment.walked));
    if (moment) before = moment;
  });
  const taking = acts.filter(({ hours }) => hours !== null);
  const then = before.state.plan.pools.find(({ id }) => id === pool.id);
  const endsWhole =
    then !== undefined && conditionOf(before.state.plan, then, rulesOfBox(before.state.plan)).state === "whole";
  return {
    acts,
    hours: taking.reduce((sum, each) => addHours(sum, each.hours ?? NO_HOURS), NO_HOURS),
    bareHours: acts.reduce(
      (sum, { redundancyDuring, hours, share = 1 }) =>
        sum + (redundancyDuring <= 0 ? (hours?.expected ?? 0) * share : 0),
      0,
    ),
    blocks,
    endsWhole,
  };
}
