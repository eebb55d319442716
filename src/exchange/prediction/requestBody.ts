import type { ValidateFunction } from "ajv";
import { openPlan } from "@/core/box/openPlan";
import type { Plan } from "@/core/document/plan";
import { jsonAnswer, type RequestAnswer } from "./answerRequest";

/** A refusal of a body that is no such request, with where and why. */
export const refused = (message: string, errors: readonly { pointer: string; message: string }[] = []): RequestAnswer =>
  jsonAnswer(400, { message, errors });

function parsed(text: string): { ok: true; value: unknown } | { ok: false; message: string } {
  try {
    return { ok: true, value: JSON.parse(text) };
  } catch (error) {
    return { ok: false, message: error instanceof Error ? error.message : String(error) };
  }
}

/**
 * A body that asks for something about a plan: its schema is checked, then its plan.
 *
 * @param validate what the whole body must be, its `plan` any object
 * @returns the plan, and the body with it; or the refusal to answer with
 */
export function planAsked<A>(
  text: string,
  validate: ValidateFunction,
): { ok: true; plan: Plan; asked: A } | { ok: false; answer: RequestAnswer } {
  const body = parsed(text);
  if (!body.ok) return { ok: false, answer: refused(`The body is not JSON: ${body.message}.`) };
  if (!validate(body.value)) {
    const errors = (validate.errors ?? [])
      .slice(0, 20)
      .map(({ instancePath, message = "has another shape" }) => ({ pointer: instancePath, message }));
    return { ok: false, answer: refused("The body is not what is asked for.", errors) };
  }
  const asked = body.value as A & { plan: unknown };
  const opened = openPlan(JSON.stringify(asked.plan), "newest");
  if (opened.ok) return { ok: true, plan: opened.plan, asked };
  const problems = opened.problems.map((each) => ({ ...each, pointer: `/plan${each.pointer}` }));
  return {
    ok: false,
    answer:
      opened.kind === "impossible"
        ? jsonAnswer(422, { message: "The plan contradicts itself.", findings: problems })
        : refused("The plan is no plan document of version 1. Its schema is at /schema/plan-1.json.", problems),
  };
}
