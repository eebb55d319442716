import type { ErrorObject } from "ajv";
import { pointerStep, type Problem } from "./problem";
import { ownValue } from "../records/ownValue";

const MOST_PROBLEMS = 50;

/** How a text must be written, by its pattern in the schema. */
export const PATTERNS: ReadonlyMap<string, string> = new Map([
  ["^[A-Za-z0-9_-]{1,64}$", "It must be 1 to 64 letters, digits, hyphens or underscores."],
  [
    "^(19[0-9]{2}|20[0-9]{2}|2100)-[0-9]{2}-[0-9]{2}$",
    "It must be a day of the years 1900 to 2100, written like 2026-11-23.",
  ],
  [
    "^(19[0-9]{2}|20[0-9]{2}|2100)(-(0[1-9]|1[0-2])(-(0[1-9]|[12][0-9]|3[01]))?)?$",
    "It must be a year, month or day of 1900 to 2100, written like 2026, 2026-11 or 2026-11-23.",
  ],
  [
    "^(19[0-9]{2}|20[0-9]{2}|2100)-(0[1-9]|1[0-2])-(0[1-9]|[12][0-9]|3[01])(T([01][0-9]|2[0-3]):[0-5][0-9](:[0-5][0-9](\\.[0-9]{1,9})?)?Z)?$",
    "It must be a day of 1900 to 2100, or a day and a time in UTC, written like 2026-11-23 or 2026-11-23T21:40Z.",
  ],
  ["^([01][0-9]|2[0-3]):[0-5][0-9]$", "It must be a time of day from 00:00 to 23:59, written like 07:30."],
  ["^[A-Z]{3}$", "It must be the three letters of a currency, like EUR."],
  ["^[A-Za-z0-9_+/-]+$", "It must be the name of a time zone, like Europe/Madrid."],
]);

/** What is wrong where a keyword of the schema is not met, by the keyword, from its parameters. */
const SENTENCES: Record<string, (params: Record<string, unknown>, pointer: string) => string> = {
  additionalProperties: ({ additionalProperty }) =>
    `"${String(additionalProperty)}" is not a field that Cortijo knows here. Remove it or correct its name.`,
  required: ({ missingProperty }) => `The field "${String(missingProperty)}" is missing.`,
  enum: ({ allowedValues }) =>
    `It must be one of ${(allowedValues as unknown[]).map((value) => JSON.stringify(value)).join(", ")}.`,
  const: ({ allowedValue }) => `It must be ${JSON.stringify(allowedValue)}.`,
  type: ({ type }) => `It must be ${describeType(type)}.`,
  minimum: ({ limit }) => `It must be at least ${String(limit)}.`,
  maximum: ({ limit }) => `It must be at most ${String(limit)}.`,
  exclusiveMinimum: ({ limit }) => `It must be more than ${String(limit)}.`,
  minItems: ({ limit }) => `It must have at least ${String(limit)} entries.`,
  uniqueItems: () => "The same entry stands in it twice.",
  minLength: () => "It must not be empty.",
  propertyNames: ({ propertyName }) => `"${String(propertyName)}" is not a name that Cortijo knows here.`,
  oneOf: () => "It must be just one of the shapes that it can have.",
  maxItems: ({ limit }, pointer) => `There may be at most ${String(limit)} ${listWords(pointer)}.`,
  maxLength: ({ limit }) => `It may be at most ${String(limit)} characters long.`,
  pattern: ({ pattern }) => PATTERNS.get(String(pattern)) ?? "It is not written as it should be.",
  discriminator: ({ error, tagValue }) =>
    error === "mapping"
      ? `${JSON.stringify(tagValue)} is no kind of step that Cortijo knows.`
      : 'The field "kind" is missing, or is no text.',
};

/** The field at which an error is, where that is not the thing of which it speaks. */
function fieldOf({ keyword, params }: ErrorObject): string | null {
  if (keyword === "additionalProperties") return String(params.additionalProperty);
  return keyword === "discriminator" && params.error === "mapping" ? String(params.tag) : null;
}

function sentence(error: ErrorObject): { message: string; pointer: string } {
  const field = fieldOf(error);
  const say = ownValue(SENTENCES, error.keyword);
  return {
    message: say ? say(error.params, error.instancePath) : "It does not fit.",
    pointer: field === null ? error.instancePath : `${error.instancePath}/${pointerStep(field)}`,
  };
}

/** What a list holds, by its field: "/dataSets" holds "data sets". */
function listWords(pointer: string): string {
  const field = /[A-Za-z]+$/.exec(pointer)?.[0] ?? "entries";
  return field.replace(/[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`);
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
  return types.map((each) => ownValue(words, each) ?? each).join(" or ");
}

/** Of which of several shapes an error speaks; of what has but one shape the validator does not say. */
const shapeOf = ({ schemaPath = "" }: Partial<ErrorObject>): string => /\/oneOf\/(\d+)/.exec(schemaPath)?.[1] ?? "";

const isWithin = (error: ErrorObject, pointer: string): boolean =>
  error.instancePath === pointer || error.instancePath.startsWith(`${pointer}/`);

/**
 * What is wrong with a value that is to be one of several shapes (a bay or the shelf): of the shape whose field it has
 * the errors of that one; otherwise that it must have exactly one of the fields.
 */
function withinChoice(pointer: string, errors: readonly ErrorObject[]): Problem[] {
  const shapes = [...new Set(errors.map(shapeOf))].map((name) => errors.filter((error) => shapeOf(error) === name));
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
 * @example explainSchemaErrors(validate.errors)
 * // [{ code: "schema", message: 'The field "name" is missing.', pointer: "" }]
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
