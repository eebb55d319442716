import type { Step } from "../document/plan";
import { type Finding } from "../findings/finding";
import { moduleOf } from "../steps/registry";
import type { WalkedStep } from "./moment";

/** Only one change at a time: a rewrite or a rebuild must have ended before the next begins. */
export function overlapFindings(step: Step, previous: WalkedStep | null): Finding[] {
  if (!step.together || !previous?.done) return [];
  const heavy = previous.cost.work.length > 0 && !moduleOf(previous.step).letsOthersBegin;
  if (!heavy || moduleOf(step).besideOthers) return [];
  return [
    {
      code: "before-the-last-has-ended",
      severity: "block",
      message:
        "The step before is still rewriting or rebuilding then. Only one change at a time: begin this when it has ended.",
      drives: [],
      mend: {
        label: "Begin when the last has ended",
        command: { kind: "edit-step", step: step.id, changes: { together: false } },
      },
    },
  ];
}
