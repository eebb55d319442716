import { answerOnThread } from "../answer";

/** What a box is, by what it prints, and in what it differs from a plan; nothing is kept. */
export function POST(request: Request): Promise<Response> {
  return answerOnThread(request, {
    what: "what the box prints",
    // Texts of 8 MiB, of which every character may take two in JSON, and a plan.
    mostBytes: 18 * 2 ** 20,
    tooLarge: "The body is larger than 18 MiB. The texts may have 8 MiB together.",
    task: (text) => ({ to: "read-box", text, now: `${new Date().toISOString().slice(0, 16)}Z` }),
  });
}
