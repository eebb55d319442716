import type { UnitFamily } from "../bytes/formatBytes";
import type { Command } from "../document/command";
import type { Plan } from "../document/plan";
import type { WalkedStep } from "../walk/moment";
import { walkPlan } from "../walk/walkPlan";
import { applyCommand } from "./applyCommand";

/**
 * The steps of a plan that can be carried out now and could no longer be after a command on the box.
 *
 * @example brokenSteps(plan, { kind: "lay-out-pool", … }).map(({ step }) => step.id) // ["s2", "s3"]
 */
export function brokenSteps(
  plan: Plan,
  command: Command,
  family: UnitFamily = "TB",
): { before: WalkedStep; after: WalkedStep }[] {
  if (plan.steps.length === 0) return [];
  const result = applyCommand(plan, command);
  if (!result.ok) return [];
  const then = new Map(
    walkPlan(result.plan, family).moments.flatMap(({ walked }) => (walked ? [[walked.step.id, walked]] : [])),
  );
  return walkPlan(plan, family).moments.flatMap(({ walked }) => {
    const after = walked ? then.get(walked.step.id) : undefined;
    return walked?.done && after && !after.done && !after.step.disabled ? [{ before: walked, after }] : [];
  });
}
