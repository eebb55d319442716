import type { Plan } from "../document/plan";

/**
 * A plan with none of its steps, and without the drives that were only to be bought for them.
 *
 * @example withoutSteps(growingClinic).steps // []
 */
export function withoutSteps(plan: Plan): Plan {
  const named = new Set(JSON.stringify(plan.steps).match(/(?<=")[A-Za-z0-9_-]{1,64}(?=")/g) ?? []);
  return { ...plan, steps: [], drives: plan.drives.filter(({ id, toBuy }) => !toBuy || !named.has(id)) };
}
