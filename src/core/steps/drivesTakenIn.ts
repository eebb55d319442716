import type { Step, StepBody } from "../document/plan";
import { moduleOf } from "./registry";

/**
 * The drives that steps put to use, each once. Steps on drives that do nothing else yet, a test or a wipe, put none to
 * use.
 *
 * @example drivesTakenIn([{ kind: "set-spare", pool: "p1", drive: "d5" }]) // ["d5"]
 */
export function drivesTakenIn(steps: readonly StepBody[]): string[] {
  const handled = steps
    .map((step) => ({ ...step, id: "new" }) as Step)
    .flatMap((step) => (moduleOf(step).besideOthers ? [] : [...moduleOf(step).handles(step)]));
  return [...new Set(handled)];
}
