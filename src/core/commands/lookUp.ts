import type { Drive, Group, Plan, Pool, Volume } from "../document/plan";
import { need, refuse } from "./refusal";

// What commands name, looked up in the plan that they come upon; what is gone refuses the command.

export const findDrive = (plan: Plan, id: string): Drive =>
  need(
    plan.drives.find((drive) => drive.id === id),
    `The drive "${id}"`,
  );

export function findGroup(plan: Plan, id: string): { pool: Pool; group: Group } {
  for (const pool of plan.pools) {
    const group = pool.groups.find((each) => each.id === id);
    if (group) return { pool, group };
  }
  return refuse("That group is no longer in the plan.");
}

export const findPool = (plan: Plan, id: string): Pool =>
  need(
    plan.pools.find((pool) => pool.id === id),
    "That pool",
  );

export const findVolume = (plan: Plan, pool: string, id: string): Volume =>
  need(
    findPool(plan, pool).volumes.find((volume) => volume.id === id),
    "That volume",
  );

/** The place of a step in the list. */
export function placeOfStep(plan: Plan, id: string): number {
  const at = plan.steps.findIndex((step) => step.id === id);
  return at >= 0 ? at : refuse("That step is no longer in the plan.");
}
