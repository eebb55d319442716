import { explainSchemaErrors } from "./explainSchemaErrors";
import { withPresentNames } from "./formerNames";
import validatePlan from "./generated/validatePlan.cjs";
import type { Plan } from "./plan";
import type { Problem } from "./problem";
import { referenceProblems } from "./references";

/** The version of plan documents that this program writes. */
export const PLAN_VERSION = 1;

/**
 * `not-a-plan`: it does not parse, is another kind of file, or breaks the schema; `newer`: it is of a later version;
 * `impossible`: it fits the schema, but cannot be (a drive in two groups).
 */
export type ReadPlanResult =
  { ok: true; plan: Plan } | { ok: false; kind: "not-a-plan" | "newer" | "impossible"; problems: Problem[] };

const refuse = (kind: "not-a-plan" | "newer" | "impossible", problems: Problem[]): ReadPlanResult => ({
  ok: false,
  kind,
  problems,
});

/**
 * Checks a value that is said to be a plan document: its format, its version, the schema, its references. What has got
 * another name since it was written is called by that.
 *
 * @param given what JSON.parse gave
 * @returns the value as a plan (the very value where it has no former names), or what is wrong with it; it never throws
 */
export function checkPlan(given: unknown): ReadPlanResult {
  const value = withPresentNames(given);
  if (
    typeof value === "object" &&
    value !== null &&
    "format" in value &&
    value.format === "cortijo-plan" &&
    "version" in value
  ) {
    const { version } = value;
    if (typeof version === "number" && version > PLAN_VERSION) {
      return refuse("newer", [
        {
          code: "newer-version",
          message:
            `This plan is of version ${version}, made by a newer Cortijo. This one reads up to version ` +
            `${PLAN_VERSION}: update Cortijo to open it.`,
          pointer: "/version",
        },
      ]);
    }
  } else {
    return refuse("not-a-plan", [
      {
        code: "not-a-plan",
        message: 'This is not a Cortijo plan: a plan begins with "format": "cortijo-plan" and a version.',
        pointer: "",
      },
    ]);
  }
  if (!validatePlan(value)) return refuse("not-a-plan", explainSchemaErrors(validatePlan.errors));
  const plan = value as Plan;
  const impossible = referenceProblems(plan);
  return impossible.length > 0 ? refuse("impossible", impossible) : { ok: true, plan };
}

/**
 * Reads the text of a plan file.
 *
 * @example readPlan("{}") // { ok: false, kind: "not-a-plan", problems: [{ code: "not-a-plan", … }] }
 */
export function readPlan(text: string): ReadPlanResult {
  let value: unknown;
  try {
    value = JSON.parse(text.replace(/^\uFEFF/, ""));
  } catch (error) {
    const reason = error instanceof Error ? error.message : String(error);
    return refuse("not-a-plan", [
      { code: "not-json", message: `This file is not JSON, so it is not a plan: ${reason}`, pointer: "" },
    ]);
  }
  return checkPlan(value);
}
