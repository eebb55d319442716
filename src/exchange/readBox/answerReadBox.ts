import { openPlan } from "@/core/box/openPlan";
import type { Plan } from "@/core/document/plan";
import { checkPlan } from "@/core/document/readPlan";
import type { Problem } from "@/core/document/problem";
import { differencesOf } from "@/core/reading/differences";
import { recognise } from "@/core/reading/recognise";
import { lastReading } from "@/core/reading/asRead";
import { standingOf } from "@/core/reading/standing";
import { MOST_BOX_CHARACTERS, readBoxText } from "../boxText/readBoxText";
import { jsonAnswer, type RequestAnswer } from "../prediction/answerRequest";

const problem = (pointer: string, message: string): Problem => ({ code: "not-understood", message, pointer });

interface Asked {
  text: string;
  plan: unknown;
  answers: Record<string, string>;
}

const FIELDS = new Set(["blockDevices", "arrays", "plan", "answers"]);

/** What of a body is not what is asked for. */
function problemsOf(body: Record<string, unknown>): Problem[] {
  const texts = Object.entries({ blockDevices: body.blockDevices, arrays: body.arrays }).flatMap(([field, value]) =>
    value === undefined || typeof value === "string"
      ? []
      : [problem(`/${field}`, "This must be the text that the command prints, as one string.")],
  );
  const { answers } = body;
  const areAnswers =
    answers === undefined ||
    (typeof answers === "object" &&
      answers !== null &&
      Object.values(answers).every((each) => typeof each === "string"));
  return [
    ...texts,
    ...(typeof body.blockDevices === "string" ? [] : [problem("/blockDevices", "The list of devices is missing.")]),
    ...(areAnswers ? [] : [problem("/answers", "This must be an object of texts, by the ids of questions.")]),
    ...Object.keys(body)
      .filter((name) => !FIELDS.has(name))
      .slice(0, 5)
      .map((name) =>
        problem(`/${name.slice(0, 60).replaceAll("~", "~0").replaceAll("/", "~1")}`, "This field is not known."),
      ),
  ];
}

function askedOf(text: string): Asked | Problem[] {
  let body: unknown;
  try {
    body = JSON.parse(text);
  } catch (error) {
    return [problem("", `The body is not JSON: ${error instanceof Error ? error.message : String(error)}.`)];
  }
  if (typeof body !== "object" || body === null || Array.isArray(body))
    return [problem("", "The body must be an object with blockDevices, arrays and plan.")];
  const fields = body as Record<string, unknown>;
  const problems = problemsOf(fields);
  if (problems.length > 0) return problems;
  return {
    text: `${fields.blockDevices as string}\n${(fields.arrays as string | undefined) ?? ""}`,
    plan: fields.plan,
    answers: (fields.answers as Record<string, string> | undefined) ?? {},
  };
}

/** The given plan, none, or why it cannot be taken. */
function planOf(given: unknown): { plan: Plan | null } | { refused: RequestAnswer } {
  if (given === undefined || given === null) return { plan: null };
  const result = openPlan(JSON.stringify(given), "newest");
  if (result.ok) return { plan: result.plan };
  const problems = result.problems.map((each) => ({ ...each, pointer: `/plan${each.pointer}` }));
  return {
    refused:
      result.kind === "impossible"
        ? jsonAnswer(422, {
            message: "The plan contradicts itself.",
            findings: problems.map((each) => ({ ...each, severity: "block" })),
          })
        : jsonAnswer(400, {
            message: "The plan is no plan document of version 1. Its schema is at /schema/plan-1.json.",
            errors: problems,
          }),
  };
}

/**
 * Answers a request to `/api/read-box`: 200 with the plan that the box is, 400 for what is no such request, 413 for
 * texts of more than 8 MB, 422 for texts that are not what a box prints, or a plan that contradicts itself.
 *
 * @param body the request's body
 * @param now when the box was read, as an instant
 * @example answerReadBox('{"blockDevices": "…"}', "2026-11-26T10:00Z").status // 422
 */
export function answerReadBox(body: string, now: string): RequestAnswer {
  const asked = askedOf(body);
  if (Array.isArray(asked)) return jsonAnswer(400, { message: "The body is not what is asked for.", errors: asked });
  if (asked.text.length > MOST_BOX_CHARACTERS)
    return jsonAnswer(413, { message: "The texts are larger than 8 MiB together. Send what one box prints." });
  const given = planOf(asked.plan);
  if ("refused" in given) return given.refused;
  const read = readBoxText(asked.text);
  if (!read.ok) return jsonAnswer(422, { message: read.message, findings: [] });
  const standing = given.plan ? standingOf(read.printed, given.plan, "TB", now, asked.answers) : null;
  const recognised = standing?.recognised ?? recognise(read.printed, null, asked.answers);
  const differences = standing?.differences ?? differencesOf(recognised, null, "TB", now);
  const plan = { ...recognised.plan, lastReading: lastReading(recognised, differences, now) };
  const checked = checkPlan(plan);
  if (!checked.ok)
    return jsonAnswer(422, {
      message: "This box is more than a plan holds.",
      findings: checked.problems.map((each) => ({ ...each, severity: "block" })),
    });
  return jsonAnswer(200, {
    plan,
    notMadeOut: recognised.notMadeOut,
    questions: recognised.questions,
    sizes: recognised.sizes,
    differences: differences.map(({ code, message, means, drives }) => ({ code, message, means, drives })),
    stepsDone: standing?.at ?? 0,
    running: standing?.running ? { step: standing.running.step.id, hoursLeft: standing.running.left } : null,
  });
}
