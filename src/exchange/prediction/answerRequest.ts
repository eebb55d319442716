import { openPlan } from "@/core/box/openPlan";
import type { Plan } from "@/core/document/plan";
import { PARTS, readParts, type Part } from "./parts";
import { answerFields, fullWork, type Field } from "./predictionAnswer";

/** The largest answer, in bytes. */
export const MOST_ANSWER_BYTES = 8_000_000;

/** An answer over HTTP: its status, and its JSON as UTF-8. */
export interface RequestAnswer {
  status: number;
  body: Uint8Array<ArrayBuffer>;
}

const encoder = new TextEncoder();

/**
 * An answer whose body is JSON.
 *
 * @example jsonAnswer(413, { message: "The body is larger than 1 MiB." })
 */
export const jsonAnswer = (status: number, body: object): RequestAnswer => ({
  status,
  body: encoder.encode(JSON.stringify(body)),
});

const refusal = (status: number, body: { message: string } & Record<string, unknown>): RequestAnswer =>
  jsonAnswer(status, body);

/** A field as JSON, item by item. */
function* fieldText(field: Field): Generator<string> {
  yield `${JSON.stringify(field.name)}:`;
  if ("value" in field) return yield JSON.stringify(field.value);
  yield "[";
  let isFirst = true;
  for (const item of field.items) {
    yield `${isFirst ? "" : ","}${JSON.stringify(item)}`;
    isFirst = false;
  }
  yield "]";
}

function joined(chunks: readonly Uint8Array[], length: number): Uint8Array<ArrayBuffer> {
  const whole = new Uint8Array(length);
  let at = 0;
  for (const chunk of chunks) {
    whole.set(chunk, at);
    at += chunk.length;
  }
  return whole;
}

/** Which parts to ask for instead of those that come to too much. */
function lessThan(parts: ReadonlySet<Part>): string {
  const without = PARTS.filter((part) => parts.has(part) && part !== "moments");
  return parts.has("moments") && parts.has("pools")
    ? `Ask for the pools as they are now (?parts=${without.join(",")}) and for the moments without them ` +
        "(?parts=moments), or send fewer steps."
    : "Send fewer steps.";
}

/** The answer for a plan; null where it would be too large or take too long. */
function planAnswer(plan: Plan, today: string, parts: ReadonlySet<Part>): Uint8Array<ArrayBuffer> | null {
  const work = fullWork();
  const chunks: Uint8Array[] = [];
  let length = 0;
  const put = (text: string) => {
    const chunk = encoder.encode(text);
    chunks.push(chunk);
    length += chunk.length;
  };
  let before = "{";
  for (const field of answerFields(plan, today, parts, work)) {
    put(before);
    for (const text of fieldText(field)) {
      put(text);
      if (length > MOST_ANSWER_BYTES || work.left <= 0) return null;
    }
    before = ",";
  }
  put(before === "{" ? "{}" : "}");
  return joined(chunks, length);
}

/**
 * Answers a request to `/api/predict`: 200 with what was asked for, 400 for what is no plan or no part, 422 for a plan
 * that contradicts itself, or of which more is asked than an answer holds.
 *
 * @param text the body
 * @param asked the names of parts with commas between; null for all of them
 * @param today as YYYY-MM-DD
 * @example answerRequest("{}", null, "2026-11-26").status // 400
 */
export function answerRequest(text: string, asked: string | null, today: string): RequestAnswer {
  const wanted = readParts(asked);
  if (!wanted.ok) return refusal(400, { message: wanted.message });
  const result = openPlan(text, "newest");
  if (result.ok) {
    const body = planAnswer(result.plan, today, wanted.parts);
    if (body) return { status: 200, body };
    const message = `The answer would be larger than 8 MB, or take too long to work out. ${lessThan(wanted.parts)}`;
    return refusal(422, { message, findings: [], parts: PARTS });
  }
  if (result.kind === "impossible") {
    const findings = result.problems.map((problem) => ({ ...problem, severity: "block" }));
    return refusal(422, { message: "The plan contradicts itself.", findings });
  }
  const message = "The body is not a plan document of version 1. Its schema is at /schema/plan-1.json.";
  return refusal(400, { message, errors: result.problems });
}
