import type { Plan } from "../document/plan";

/** Puts another plan in the place of a draft. */
export function become(plan: Plan, next: Plan): void {
  for (const key of Object.keys(plan)) if (!Object.hasOwn(next, key)) delete plan[key as "log"];
  Object.assign(plan, next);
}
