import type { AnswerTask } from "@/workers/answer.thread";
import { readBody } from "./readBody";
import { areFull, onThread } from "./threads";

const refusal = (status: number, message: string, headers: Record<string, string> = {}) =>
  Response.json({ message }, { status, headers });

const isJson = (request: Request) =>
  request.headers.get("content-type")?.split(";")[0]?.trim().toLowerCase() === "application/json";

const busy = () =>
  refusal(503, "There is too much to work out at once. Try again in some seconds.", { "retry-after": "5" });

/** What is asked for, and the largest body in which it is. */
interface Asked {
  /** What is to be sent, for whoever sends something else: "the plan document". */
  what: string;
  mostBytes: number;
  /** The same in words, with what to send instead. */
  tooLarge: string;
  task: (text: string) => AnswerTask;
}

/** Answers a request on a thread; nothing is kept. */
export async function answerOnThread(request: Request, { what, mostBytes, tooLarge, task }: Asked): Promise<Response> {
  if (!isJson(request)) return refusal(415, `Send ${what} as JSON, with the header content-type: application/json.`);
  if (areFull()) return busy();
  const text = await readBody(request, mostBytes);
  if (text === null) return refusal(413, tooLarge);
  const answer = await onThread(task(text));
  if (answer === null) return busy();
  return new Response(answer.body, {
    status: answer.status,
    headers: { "content-type": "application/json", "cache-control": "no-store" },
  });
}
