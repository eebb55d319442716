import type { ErrorObject } from "ajv";
import { pointerStep, type Problem } from "./problem";

const MOST_PROBLEMS = 50;

function sentence(error: ErrorObject): { message: string; pointer: string } {
  const pointer = error.instancePath;
  const params = error.params as Record<string, unknown>;
  switch (error.keyword) {
    case "additionalProperties":
      return {
        message: `"${String(params.additionalProperty)}" is not a field that Cortijo knows here. Remove it or correct its name.`,
        pointer: `${pointer}/${pointerStep(String(params.additionalProperty))}`,
      };
    case "required":
      return { message: `The field "${String(params.missingProperty)}" is missing.`, pointer };
    case "enum":
      return {
        message: `It must be one of ${(params.allowedValues as unknown[]).map((value) => JSON.stringify(value)).join(", ")}.`,
        pointer,
      };
    case "const":
      return { message: `It must be ${JSON.stringify(params.allowedValue)}.`, pointer };
    case "type":
      return { message: `It must be ${describeType(params.type)}.`, pointer };
    case "minimum":
      return { message: `It must be at least ${String(params.limit)}.`, pointer };
    case "maximum":
      return { message: `It must be at most ${String(params.limit)}.`, pointer };
    case "maxItems":
      return {
        message:
          Number(params.limit) === 0 ? "It must be empty." : `It may have at most ${String(params.limit)} entries.`,
        pointer,
      };
    case "maxLength":
      return { message: `It may be at most ${String(params.limit)} characters long.`, pointer };
    case "pattern":
      return { message: "It must be 1 to 64 letters, digits, hyphens or underscores.", pointer };
    case "minProperties":
    case "maxProperties":
      return { message: Number(params.limit) === 0 ? "It must be empty." : "It must have exactly one field.", pointer };
    default:
      return { message: `It ${error.message ?? "does not fit"}.`, pointer };
  }
}

function describeType(type: unknown): string {
  const types = (Array.isArray(type) ? type : [type]).map(String);
  const words: Record<string, string> = {
    integer: "a whole number",
    number: "a number",
    string: "a text",
    object: "an object",
    array: "a list",
    boolean: "true or false",
    null: "null",
  };
  return types.map((each) => words[each] ?? each).join(" or ");
}

/**
 * Ajv's errors as sentences with JSON pointers, at most 50 of them.
 *
 * @example explainSchemaErrors(validate.errors) // [{ code: "schema", message: 'The field "name" is missing.', pointer: "" }]
 */
export function explainSchemaErrors(errors: readonly ErrorObject[] | null | undefined): Problem[] {
  return (errors ?? []).slice(0, MOST_PROBLEMS).map((error) => ({ code: "schema", ...sentence(error) }));
}
