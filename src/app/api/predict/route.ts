import { answerOnThread } from "../answer";

/** What the core says of a plan document; nothing is kept. */
export function POST(request: Request): Promise<Response> {
  const parts = new URL(request.url).searchParams.get("parts");
  return answerOnThread(request, {
    what: "the plan document",
    mostBytes: 2 ** 20,
    tooLarge: "The body is larger than 1 MiB. Send one plan document.",
    task: (text) => ({ to: "predict", text, parts, today: new Date().toISOString().slice(0, 10) }),
  });
}
