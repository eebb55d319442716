import type { Plan, Step } from "../document/plan";
import { type Finding } from "../findings/finding";
import { moduleOf } from "../steps/registry";
import type { WalkedStep } from "./moment";

/** Whether nothing else may begin while a step runs: it rewrites, copies or rebuilds. */
const isAlone = ({ step, cost }: WalkedStep): boolean => cost.work.length > 0 && !moduleOf(step).letsOthersBegin;

/** The steps that still run at an hour from the beginning of the plan. */
export const runningAt = (start: number, before: readonly WalkedStep[]): WalkedStep[] =>
  before.filter((each) => each.done && each.from <= start && each.to > start);

/**
 * Only one change at a time: every rewrite or rebuild must have ended before the next begins, whatever stands between
 * the two in the list.
 *
 * @param start when the step begins, in hours from the beginning of the plan
 * @param before the steps before it
 * @param plan the box before it
 */
export function overlapFindings(step: Step, start: number, before: readonly WalkedStep[], plan: Plan): Finding[] {
  if (!step.together || moduleOf(step).besideOthers) return [];
  const running = runningAt(start, before).filter(
    (each) => isAlone(each) && !moduleOf(step).mayRunBeside?.(step, each, plan),
  );
  if (running.length === 0) return [];
  const which = running.includes(before.at(-1) as WalkedStep) ? "The step before is" : "An earlier step is";
  return [
    {
      code: "before-the-last-has-ended",
      severity: "block",
      message:
        `${which} still rewriting, rebuilding or filling then. Only one change at a time: begin this when it has ` +
        "ended.",
      drives: [],
      mend: {
        label: "Begin when the last has ended",
        command: { kind: "edit-step", step: step.id, changes: { together: false } },
      },
    },
  ];
}
