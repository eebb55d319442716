import { EDITION } from "../document/edition";
import { withPresentNames } from "../document/formerNames";
import type { Plan } from "../document/plan";
import { checkPlan, readPlan, type ReadPlanResult } from "../document/readPlan";
import { upToDate } from "./migrations";

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
  const marked = unmarked === "newest" ? { edition: EDITION, ...result.plan } : result.plan;
  return { ok: true, plan: upToDate(marked) };
}

/**
 * What is wrong with a plan that a command has made, in a sentence; null for a plan that can be kept and opened again.
 *
 * @example problemOf(plan) // null
 */
export function problemOf(plan: Plan): string | null {
  const result = checkPlan(plan);
  return result.ok ? null : (result.problems[0]?.message ?? "It is no plan.");
}

/**
 * Checks a document that was kept, by this program, an older or a newer one, or damaged since, and brings it up to
 * date.
 *
 * @param kept whatever was found where a document should be
 * @example openKept({ format: "cortijo-plan", version: 9 }) // { ok: false, kind: "newer", problems: [ … ] }
 */
export function openKept(kept: unknown): ReadPlanResult {
  const result = checkPlan(kept);
  return result.ok ? { ok: true, plan: upToDate(result.plan) } : result;
}

export { withPresentNames };
