import type { UnitFamily } from "../../bytes/formatBytes";
import type { BoxRules } from "../../document/plan";
import type { Finding } from "../../findings/finding";
import type { WalkedMoment, WalkedStep } from "../moment";

/** What a watcher is given beside the walk. */
export interface WatchSetting {
  /** The rules of the box in the end. */
  rules: BoxRules;
  family: UnitFamily;
}

/** A finding that can only be made from the end of the walk, and the step at which it is said. */
export interface Sighting {
  at: WalkedStep;
  finding: Omit<Finding, "code" | "drives"> & { drives?: string[] };
}

/** Watches over a whole walk for something that was forgotten. One file each, listed in `registry.ts`. */
export interface Watcher {
  code: string;
  /**
   * @param moments at least one
   * @returns what was forgotten, each at the step that it follows from
   */
  watch: (moments: readonly WalkedMoment[], end: WalkedMoment, setting: WatchSetting) => Sighting[];
}

/** Less than this is not worth a step, in bytes. */
export const MOST_NOT_WORTH_SAYING = 1e9;

/**
 * The last step that was carried out and between whose moments before and after something has changed, or null. Steps
 * that left the plan as it was are not asked about.
 */
export function lastStepAt(
  moments: readonly WalkedMoment[],
  hasChanged: (before: WalkedMoment, after: WalkedMoment) => boolean,
): WalkedStep | null {
  for (let i = moments.length - 1; i > 0; i -= 1) {
    const [before, after] = [moments[i - 1], moments[i]];
    if (!before || !after?.walked?.done || before.state.plan === after.state.plan) continue;
    if (hasChanged(before, after)) return after.walked;
  }
  return null;
}
