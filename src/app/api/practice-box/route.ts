import { answerOnThread } from "../answer";

/** What a simulated box prints after some hours of a plan, with what befalls it; nothing is kept. */
export function POST(request: Request): Promise<Response> {
  return answerOnThread(request, {
    what: "a plan and for how long it is to be tried",
    mostBytes: 2 ** 20,
    tooLarge: "The body is larger than 1 MiB.",
    task: (text) => ({ to: "practice-box", text }),
  });
}
