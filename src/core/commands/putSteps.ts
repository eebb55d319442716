import { MOST_STEPS } from "../document/limits";
import type { Plan, Step, StepBody } from "../document/plan";
import { placeOfStep } from "./lookUp";
import { refuse } from "./refusal";

/** Puts steps in at a place of the list, instead of so many that stand there, and gives them ids. */
export function putSteps(plan: Plan, at: number, instead: number, bodies: readonly StepBody[]): void {
  if (plan.steps.length + bodies.length > MOST_STEPS) refuse(`A plan has at most ${MOST_STEPS} steps.`);
  // Ids go on from the highest that there is: to look for gaps would take too long in a long plan.
  // Those of the history are not given again: a sheet, or what was ticked, still speaks of the step that had one.
  const past = (plan.history ?? []).map(({ step }) => step);
  const numbers = [...plan.steps.map(({ id }) => id), ...past].map((id) => Number(/^s(\d{1,9})$/.exec(id)?.[1] ?? 0));
  let highest = numbers.reduce((most, number) => Math.max(most, number), 0);
  const steps = bodies.map((body): Step => ({ ...(body as Step), id: `s${(highest += 1)}` }));
  plan.steps.splice(at, instead, ...steps);
}

/** Where in the list something goes that is put before a step, after one, or at the end. */
export function placeFor(plan: Plan, { before, after }: { before?: string; after?: string }): number {
  if (before !== undefined) return placeOfStep(plan, before);
  return after !== undefined ? placeOfStep(plan, after) + 1 : plan.steps.length;
}
