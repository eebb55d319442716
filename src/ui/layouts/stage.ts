import { poolOf, type Choice } from "@/core/compare/compare";
import type { Drive, Plan } from "@/core/document/plan";

/** The groups of a pool that is only thought of, and the drives that it does without. */
export type Outlined = Pick<Choice, "groups" | "leftOut" | "pool">;

/**
 * A choice as a plan of its own, its drives side by side in the order of its groups, so that the terraces can draw it.
 */
export function stage(choice: Outlined, drives: readonly Drive[], plan: Plan): Plan {
  const order = [...choice.groups.flatMap((group) => group.drives), ...choice.leftOut];
  const placed = order.flatMap((id, i) => {
    const drive = drives.find((each) => each.id === id);
    return drive ? [{ ...drive, place: { bay: i + 1 } }] : [];
  });
  return {
    ...plan,
    box: { ...plan.box, bays: Math.max(1, order.length) },
    drives: placed,
    pools: [poolOf(choice.groups)],
  };
}
