import { enablePatches, produceWithPatches, type Patch } from "immer";
import { nameParity } from "../box/parityNamed";
import type { Command } from "../document/command";
import type { Plan } from "../document/plan";
import { sweepData } from "./dataOfPlan";
import { refuseTooMany, stopWhatIsGone } from "./keptRecords";
import { Refusal } from "./refusal";
import { moduleOfCommand } from "./registry";

enablePatches();

/** The next plan with the patches there and back, or why the command no longer fits the plan. */
export type CommandResult =
  { ok: true; plan: Plan; patches: Patch[]; inverse: Patch[] } | { ok: false; reason: string };

/**
 * Applies a command to a plan. The plan is not changed; the patches lead to the next one and back.
 *
 * @returns the next plan, or a sentence why the command does not fit this plan (a drive is gone, a bay does not exist)
 * @example applyCommand(plan, { kind: "move-drive", drive: "d5", to: { bay: 5 } })
 */
export function applyCommand(plan: Plan, command: Command): CommandResult {
  try {
    const [next, patches, inverse] = produceWithPatches(plan, (draft) => {
      moduleOfCommand(command).apply(draft as Plan, command);
      nameParity(draft as Plan);
      stopWhatIsGone(plan, draft as Plan);
      refuseTooMany(plan, draft as Plan);
      if (plan.dataSets || plan.backups) sweepData(draft as Plan);
    });
    return { ok: true, plan: next, patches, inverse };
  } catch (error) {
    if (error instanceof Refusal) return { ok: false, reason: error.message };
    throw error;
  }
}
