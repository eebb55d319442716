import type { Plan } from "@/core/document/plan";
import type { Problem } from "@/core/document/problem";
import { readPlan, writePlan } from "@/core/document/readPlan";

/** The largest plan file that is read. The largest plan that can be made is smaller by far. */
export const MOST_PLAN_FILE_BYTES = 4 * 2 ** 20;

export type PlanFileResult = { ok: true; plan: Plan } | { ok: false; title: string; problems: Problem[] };

const TITLES = { "not-a-plan": "This file is not a plan that Cortijo can read", newer: "This plan was made by a newer Cortijo", impossible: "This plan contradicts itself" };

/**
 * Reads a plan file, after a look at its size. Nothing is changed by it.
 *
 * @param file what was chosen or dropped
 */
export async function readPlanFile(file: Pick<File, "name" | "size" | "text">): Promise<PlanFileResult> {
  if (file.size > MOST_PLAN_FILE_BYTES) {
    const megabytes = Math.round(file.size / 1e6);
    return { ok: false, title: "This file is too large", problems: [{ code: "too-large", message: `“${file.name}” has ${megabytes} MB; a plan has at most 4 MB. Choose the file that was exported from Cortijo, named *.cortijo.json.`, pointer: "" }] };
  }
  const result = readPlan(await file.text());
  return result.ok ? result : { ok: false, title: TITLES[result.kind], problems: result.problems };
}

/**
 * The name under which a plan is exported, safe on every file system.
 *
 * @example planFileName("Animal clinic, Villarrolla") // "animal-clinic-villarrolla.cortijo.json"
 */
export function planFileName(name: string): string {
  const slug = name.normalize("NFKD").replace(/[\u0300-\u036f]/g, "").toLowerCase().replace(/[^a-z0-9]+/g, "-").replace(/^-+|-+$/g, "").slice(0, 60);
  return `${slug || "plan"}.cortijo.json`;
}

/** Hands a plan to the browser as a file to keep. */
export function downloadPlan(plan: Plan): void {
  const url = URL.createObjectURL(new Blob([writePlan(plan)], { type: "application/json" }));
  const link = document.createElement("a");
  link.href = url;
  link.download = planFileName(plan.name);
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}
