import type { Plan } from "../document/plan";

/**
 * Puts another plan in the place of a draft. Its history is the draft's with entries added: they are put to it one by
 * one, so that what is kept for undoing is they, and not all that has ever been done.
 */
export function become(plan: Plan, { history = [], ...next }: Plan): void {
  const { length } = plan.history ?? [];
  for (const key of Object.keys(plan)) if (key !== "history" && !Object.hasOwn(next, key)) delete plan[key as "log"];
  Object.assign(plan, next);
  if (history.length > length) (plan.history ??= []).push(...history.slice(length));
}
