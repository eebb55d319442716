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
    case "discriminator":
      return params.error === "mapping"
        ? {
            message: `${JSON.stringify(params.tagValue)} is no kind of step that Cortijo knows.`,
            pointer: `${pointer}/kind`,
          }
        : { message: 'The field "kind" is missing, or is no text.', pointer };
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

/** Of which definition of the schema an error speaks. */
const definitionOf = (error: ErrorObject): string => error.schemaPath.split("/")[2] ?? "";

const isWithin = (error: ErrorObject, pointer: string): boolean =>
  error.instancePath === pointer || error.instancePath.startsWith(`${pointer}/`);

/**
 * What is wrong with a value that is to be one of several shapes (a bay or the shelf): of the shape whose field it has
 * the errors of that one; otherwise that it must have exactly one of the fields.
 */
function withinChoice(pointer: string, errors: readonly ErrorObject[]): Problem[] {
  const shapes = [...new Set(errors.map(definitionOf))].map((name) =>
    errors.filter((error) => definitionOf(error) === name),
  );
  const begun = shapes.filter((shape) => !shape.some((error) => error.keyword === "required"));
  const meant = begun.length === 1 ? begun[0] : undefined;
  if (meant) return meant.map(problemOf);
  const fields = errors.flatMap(({ params }) => params.missingProperty ?? params.additionalProperty ?? []);
  if (fields.length === 0) return errors.slice(0, 1).map(problemOf);
  const names = [...new Set(fields)].map((field) => `"${field}"`).join(" or ");
  return [{ code: "schema", message: `It must have exactly one field: ${names}.`, pointer }];
}

const problemOf = (error: ErrorObject): Problem => ({ code: "schema", ...sentence(error) });

/**
 * Ajv's errors as sentences with JSON pointers, at most 50 of them.
 *
 * @example explainSchemaErrors(validate.errors) // [{ code: "schema", message: 'The field "name" is missing.', pointer: "" }]
 */
export function explainSchemaErrors(errors: readonly ErrorObject[] | null | undefined): Problem[] {
  const all = errors ?? [];
  const choices = new Set(all.flatMap((error) => (error.keyword === "oneOf" ? [error.instancePath] : [])));
  const problems: Problem[] = [];
  for (const error of all) {
    if (problems.length >= MOST_PROBLEMS) break;
    const choice = [...choices].find((pointer) => isWithin(error, pointer));
    if (choice === undefined) problems.push(problemOf(error));
    else if (error.keyword === "oneOf") {
      const branches = all.filter((each) => each.keyword !== "oneOf" && isWithin(each, choice));
      problems.push(...withinChoice(choice, branches));
    }
  }
  return problems.slice(0, MOST_PROBLEMS);
}
