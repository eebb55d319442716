import { readBody } from "./readBody";
import { areFull, onThread } from "./threads";

const refusal = (status: number, message: string, headers: Record<string, string> = {}) =>
  Response.json({ message }, { status, headers });

const isJson = (request: Request) =>
  request.headers.get("content-type")?.split(";")[0]?.trim().toLowerCase() === "application/json";

const busy = () =>
  refusal(503, "There is too much to work out at once. Try again in some seconds.", { "retry-after": "5" });

/** What the core says of a plan document; nothing is kept. */
export async function POST(request: Request): Promise<Response> {
  if (!isJson(request))
    return refusal(415, "Send the plan document as JSON, with the header content-type: application/json.");
  if (areFull()) return busy();
  const text = await readBody(request);
  if (text === null) return refusal(413, "The body is larger than 1 MiB. Send one plan document.");
  const parts = new URL(request.url).searchParams.get("parts");
  const answer = await onThread({ text, parts, today: new Date().toISOString().slice(0, 10) });
  if (answer === null) return busy();
  return new Response(answer.body, {
    status: answer.status,
    headers: { "content-type": "application/json", "cache-control": "no-store" },
  });
}
