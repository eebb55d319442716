import type { Plan } from "@/core/document/plan";
import type { Problem } from "@/core/document/problem";
import { openPlan } from "@/core/box/openPlan";

/** The largest plan file that is read. The largest plan that can be made is smaller by far. */
export const MOST_PLAN_FILE_BYTES = 4 * 2 ** 20;

export type PlanFileResult = { ok: true; plan: Plan } | { ok: false; title: string; problems: Problem[] };

const TITLES = {
  "not-a-plan": "This file is not a plan that Cortijo can read",
  newer: "This plan was made by a newer Cortijo",
  impossible: "This plan contradicts itself",
};

/**
 * Reads a plan file, after a look at its size. Nothing is changed by it.
 *
 * @param file what was chosen or dropped
 */
export async function readPlanFile(file: Pick<File, "name" | "size" | "text">): Promise<PlanFileResult> {
  if (file.size > MOST_PLAN_FILE_BYTES) {
    const megabytes = Math.round(file.size / 1e6);
    return {
      ok: false,
      title: "This file is too large",
      problems: [
        {
          code: "too-large",
          message: `“${file.name}” has ${megabytes} MB; a plan has at most 4 MB. Choose the file that was exported from Cortijo, named *.cortijo.json.`,
          pointer: "",
        },
      ],
    };
  }
  const result = openPlan(await file.text());
  return result.ok ? result : { ok: false, title: TITLES[result.kind], problems: result.problems };
}
