import type { Bytes } from "@/core/bytes/bytes";
import type { UnitFamily } from "@/core/bytes/formatBytes";
import { applyCommand } from "@/core/commands/applyCommand";
import type { StepBody } from "@/core/document/plan";
import type { Finding } from "@/core/findings/finding";
import type { Walk } from "@/core/walk/moment";
import { placeAt } from "@/core/walk/placeAt";
import { exposedHours } from "@/core/walk/planSummary";
import { walkPlan } from "@/core/walk/walkPlan";

/** What steps that are not planned yet would come to. */
export interface ActTrial {
  steps: StepBody[];
  /** From the begin of the first to the end of the last. */
  hours: number;
  /** For how long of that no drive may fail. */
  bareHours: number;
  /** What the pools hold before and after. */
  before: Bytes;
  after: Bytes;
  /** What stands against it. */
  blocks: Finding[];
  /** Other steps that would do, and what they are called; null where none are known. */
  instead: { label: string; steps: StepBody[] } | null;
}

/**
 * Tries steps at a moment of a plan. The whole plan is walked with them, so that what was done before counts: a backup,
 * a test.
 *
 * @param at the moment, 0 for now
 * @param day today, YYYY-MM-DD
 */
export function actTrial(whole: Walk, at: number, steps: StepBody[], unit: UnitFamily, day: string): ActTrial {
  const result = applyCommand(whole.plan, { kind: "insert-steps", ...placeAt(whole, at), steps });
  const walk = result.ok ? walkPlan(result.plan, unit, whole, day) : whole;
  const before = walk.moments[at]?.capacities.pool ?? 0;
  const moments = walk.moments.slice(at + 1, at + 1 + (result.ok ? steps.length : 0));
  const walked = moments.flatMap((moment) => moment.walked ?? []);
  const blocks = walked.flatMap((each) => each.findings.filter((finding) => finding.severity === "block"));
  const mend = blocks.map((finding) => finding.mend).find((each) => each?.command.kind === "replace-step");
  const command = mend?.command.kind === "replace-step" ? mend.command : null;
  const place = command ? walked.findIndex((each) => each.step.id === command.step) : -1;
  return {
    steps,
    hours:
      walked.length === 0
        ? 0
        : Math.max(...walked.map((each) => each.to)) - Math.min(...walked.map((each) => each.from)),
    bareHours: exposedHours({ ...walk, moments }, 0),
    before,
    after: moments.at(-1)?.capacities.pool ?? before,
    blocks,
    instead:
      mend && command && place >= 0
        ? { label: mend.label, steps: [...steps.slice(0, place), ...command.by, ...steps.slice(place + 1)] }
        : null,
  };
}
