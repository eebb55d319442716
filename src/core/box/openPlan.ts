import { ofThisEdition } from "../document/edition";
import { readPlan, type ReadPlanResult } from "../document/readPlan";
import { withParityNamed } from "./parityNamed";

/**
 * Reads the text of a plan document, of this version or an older one, which is brought up to date.
 *
 * @param unmarked by which edition of the ready-made sets one is read that does not say: files are of the first, which
 * did not write it yet; requests are answered by the sets as they are
 * @example openPlan("{}") // { ok: false, kind: "not-a-plan", problems: [{ code: "not-a-plan", … }] }
 */
export function openPlan(text: string, unmarked: "first" | "newest" = "first"): ReadPlanResult {
  const result = readPlan(text);
  if (!result.ok) return result;
  const isOld = result.plan.edition !== undefined || unmarked === "first";
  return { ok: true, plan: withParityNamed(isOld ? ofThisEdition(result.plan) : result.plan) };
}
