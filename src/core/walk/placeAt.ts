import type { Walk } from "./moment";

/**
 * Where steps go in that are to begin at a moment: after the step that led to it, or before all others.
 *
 * @param at the index of the moment
 * @example placeAt(walked, 0) // { before: "s1" }
 */
export function placeAt({ plan, moments }: Walk, at: number): { before?: string; after?: string } {
  const after = moments[at]?.after;
  if (after) return { after };
  const [first] = plan.steps;
  return first ? { before: first.id } : {};
}
