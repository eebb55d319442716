import { rulesOfBox } from "@/core/box/rulesOfBox";
import type { Bytes } from "@/core/bytes/bytes";
import type { UnitFamily } from "@/core/bytes/formatBytes";
import { applyCommand } from "@/core/commands/applyCommand";
import type { Plan, StepBody, StepChanges } from "@/core/document/plan";
import type { Finding } from "@/core/findings/finding";
import { swapWords } from "@/core/steps/swapping";
import type { Walk, WalkedStep } from "@/core/walk/moment";
import { placeAt } from "@/core/walk/placeAt";
import { exposedHours } from "@/core/walk/planSummary";
import { walkPlan } from "@/core/walk/walkPlan";

/** What steps that are not planned yet would come to. */
export interface ActTrial {
  steps: StepBody[];
  /** From the begin of the first to the end of the last. */
  hours: number;
  /** For how long of that the loss of one more drive loses data. */
  bareHours: number;
  /** What the pools hold before and after. */
  before: Bytes;
  after: Bytes;
  /** For how long and how often the box is off, or the pool stopped, to change drives; empty where it is not. */
  away: string;
  /** What stands against it. */
  blocks: Finding[];
  /** What should be heeded before it is planned, each once; how exposed it is, is said by the hours. */
  warnings: string[];
  /** What is good to know, each once. */
  notes: string[];
  /** The plan with them, and their ids there; null where they cannot be put into it. */
  planned: { plan: Plan; steps: string[] } | null;
  /** Other steps that would do, and what they are called; null where none are known. */
  instead: { label: string; steps: StepBody[] } | null;
}

/** The steps with one of them in other words, as the mend of a block says it; null where none does. */
function insteadOf(
  steps: readonly StepBody[],
  walked: readonly WalkedStep[],
  blocks: readonly Finding[],
): ActTrial["instead"] {
  const mend = blocks.map((finding) => finding.mend).find((each) => each?.command.kind === "replace-step");
  if (mend?.command.kind !== "replace-step") return null;
  const { step, by } = mend.command;
  const place = walked.findIndex((each) => each.step.id === step);
  return place < 0 ? null : { label: mend.label, steps: [...steps.slice(0, place), ...by, ...steps.slice(place + 1)] };
}

/** What is said of steps, by weight, each once; how exposed they are is said by the hours. */
function saidOf(walked: readonly WalkedStep[]): Pick<ActTrial, "blocks" | "warnings" | "notes"> {
  const of = (weight: Finding["severity"]) =>
    walked.flatMap((each) => each.findings.filter(({ severity }) => severity === weight));
  const messages = (weight: Finding["severity"]) => [
    ...new Set(of(weight).flatMap(({ code, message }) => (code === "no-redundancy" ? [] : [message]))),
  ];
  return { blocks: of("block"), warnings: messages("warn"), notes: messages("note") };
}

/**
 * What would be said of a step of the plan if it were otherwise.
 *
 * @param day today, YYYY-MM-DD
 */
export function editTrial(whole: Walk, id: string, changes: StepChanges, day: string): ReturnType<typeof saidOf> {
  const result = applyCommand(whole.plan, { kind: "edit-step", step: id, changes });
  const { moments } = result.ok ? walkPlan(result.plan, whole.family, whole, day) : whole;
  return saidOf(moments.flatMap(({ walked }) => (walked?.step.id === id ? [walked] : [])));
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
  const said = saidOf(walked);
  const swaps = walked.reduce((sum, each) => sum + each.cost.swaps, 0);
  return {
    steps,
    hours:
      walked.length === 0
        ? 0
        : Math.max(...walked.map((each) => each.to)) - Math.min(...walked.map((each) => each.from)),
    bareHours: exposedHours({ ...walk, moments }, 0),
    before,
    after: moments.at(-1)?.capacities.pool ?? before,
    away: swapWords(swaps, rulesOfBox(walk.moments[at]?.state.plan ?? walk.plan)),
    ...said,
    planned: result.ok ? { plan: result.plan, steps: moments.flatMap(({ after }) => after ?? []) } : null,
    instead: insteadOf(steps, walked, said.blocks),
  };
}
