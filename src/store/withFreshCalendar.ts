import type { Plan } from "@/core/document/plan";
import { newId } from "./newId";

/** A copy of a plan that has entries of its own in calendar programs. */
export function withFreshCalendar(plan: Plan): Plan {
  return plan.calendar ? { ...plan, calendar: { ...plan.calendar, id: newId() } } : plan;
}
