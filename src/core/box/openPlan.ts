import { readPlan, type ReadPlanResult } from "../document/readPlan";
import { withParityNamed } from "./parityNamed";

/**
 * Reads the text of a plan file, of this version or an older one, which is brought up to date.
 *
 * @example openPlan("{}") // { ok: false, kind: "not-a-plan", problems: [{ code: "not-a-plan", … }] }
 */
export function openPlan(text: string): ReadPlanResult {
  const result = readPlan(text);
  return result.ok ? { ok: true, plan: withParityNamed(result.plan) } : result;
}
