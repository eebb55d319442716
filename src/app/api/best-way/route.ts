import { answerOnThread } from "../answer";

/** The best way to grow a plan's box for a wish; nothing is kept. */
export function POST(request: Request): Promise<Response> {
  return answerOnThread(request, {
    what: "a plan and a wish",
    mostBytes: 2 ** 20,
    tooLarge: "The body is larger than 1 MiB.",
    task: (text) => ({ to: "best-way", text, today: new Date().toISOString().slice(0, 10) }),
  });
}
