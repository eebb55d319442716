import { openPlan } from "@/core/box/openPlan";
import { predictionAnswer } from "@/exchange/predictionAnswer";
import { readBody } from "./readBody";

/** What the core says of a plan document; nothing is kept. */
export async function POST(request: Request): Promise<Response> {
  const text = await readBody(request);
  if (text === null)
    return Response.json({ message: "The body is larger than 1 MiB. Send one plan document." }, { status: 413 });
  const result = openPlan(text, "newest");
  if (result.ok) return Response.json(predictionAnswer(result.plan, new Date().toISOString().slice(0, 10)));
  if (result.kind === "impossible") {
    const findings = result.problems.map((problem) => ({ ...problem, severity: "block" }));
    return Response.json({ message: "The plan contradicts itself.", findings }, { status: 422 });
  }
  return Response.json(
    {
      message: "The body is not a plan document of version 1. Its schema is at /schema/plan-1.json.",
      errors: result.problems,
    },
    { status: 400 },
  );
}
