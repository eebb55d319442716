import type { Spread } from "../chance/inputs";
import { prepareChances, rangedChances } from "../chance/planChances";
import { applyCommand } from "../commands/applyCommand";
import { walkPlan } from "../walk/walkPlan";
import type { Place, Tried } from "./tried";

/**
 * How likely the steps of a sequence cost something, of 1, as the plan would say it with them.
 *
 * @returns null where they cannot be put into the plan
 * @example chanceOfSequence(place, tried)?.expected // 0.1077 for six drives replaced by pulling
 */
export function chanceOfSequence({ document, walked, today }: Place, { command, moments }: Tried): Spread | null {
  const result = applyCommand(document, command);
  if (!result.ok) return null;
  const trial = walkPlan(result.plan, walked.family, walked, walked.day ?? today);
  const own = new Set(moments.flatMap(({ after }) => after ?? []));
  const prepared = prepareChances(trial, []);
  const stretches = prepared.walked.stretches.filter(({ step }) => own.has(step));
  return rangedChances({ ...prepared, walked: { ...prepared.walked, stretches } }).along.any;
}
