import type { Plan } from "@/core/document/plan";
import { writePlan } from "@/core/document/writePlan";
import { saveFile } from "./saveFile";

/**
 * The name under which a plan is exported, safe on every file system.
 *
 * @example planFileName("Animal clinic, Villarrolla") // "animal-clinic-villarrolla.cortijo.json"
 */
export function planFileName(name: string): string {
  const slug = name
    .normalize("NFKD")
    .replace(/[\u0300-\u036f]/g, "")
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-+|-+$/g, "")
    .slice(0, 60);
  return `${slug || "plan"}.cortijo.json`;
}

/**
 * Hands a plan to the browser as a file to keep.
 *
 * @returns the file's name
 */
export function downloadPlan(plan: Plan): string {
  const name = planFileName(plan.name);
  saveFile(name, "application/json", writePlan(plan));
  return name;
}
