import type { Loss } from "./losses";
import type { Stage } from "./stage";

/** What became of all that is stored: nothing was lost, all that was comes back from backups, or some does not. */
export type Became = "whole" | "restored" | "lost";

/** What a rehearsal ended with. */
export interface Outcome {
  became: Became;
  /** What could not be read any more, each with the backup that has it. */
  losses: readonly Loss[];
  /** Hours in which a group had less protection than its layout gives. */
  degradedHours: number;
  /** Steps of the plan that came to nothing, by their ids. */
  passedOver: readonly string[];
  /** Hours from the beginning to the end. */
  hours: number;
}

/**
 * What a rehearsal has come to.
 *
 * @example outcomeOf(stage).became // "whole"
 */
export function outcomeOf({ losses, degradedHours, passedOver, practice }: Stage): Outcome {
  const all = [...losses.values()];
  const became = all.some(({ from }) => from === null) ? "lost" : all.length > 0 ? "restored" : "whole";
  return { became, losses: all, degradedHours, passedOver, hours: practice.box.hours };
}

/** The gravest age and share of what was lost, so that of two outcomes the worse can be told. */
const gravity = ({ became, losses, degradedHours }: Outcome, usual: number): number[] => [
  ["whole", "restored", "lost"].indexOf(became),
  losses.reduce((sum, { share, from }) => sum + (from === null ? share : 0), 0),
  Math.max(0, ...losses.map(({ ageHours }) => ageHours ?? 0)),
  losses.reduce((sum, { share }) => sum + share, 0),
  Math.max(0, degradedHours - usual),
];

/**
 * Which of two outcomes is worse: more than 0 where it is the first. What is lost for good comes first, then how old
 * what comes back is, then for how long there was less protection.
 *
 * @param usual hours of less protection that the plan has anyway
 */
export function compareOutcomes(one: Outcome, other: Outcome, usual: number): number {
  const [a, b] = [gravity(one, usual), gravity(other, usual)];
  for (let i = 0; i < a.length; i += 1) {
    const difference = (a[i] ?? 0) - (b[i] ?? 0);
    if (Math.abs(difference) > 1e-6) return difference;
  }
  return 0;
}
