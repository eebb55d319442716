import type { Plan } from "./plan";

/** The text of a plan file, with the fields in the order in which the plan has them. */
export function writePlan(plan: Plan): string {
  return `${JSON.stringify(plan, null, 2)}\n`;
}
