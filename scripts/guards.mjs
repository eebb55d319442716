// What is refused before a request is handed to the application.

/** The largest body that is taken, in bytes. */
const MOST_BODY_BYTES = 2 ** 20;

/** As many predictions as are worked on and may wait (`src/app/api/predict/threads.ts`), two and eight. */
const MOST_AT_ONCE = 10;
let atOnce = 0;

export const isPrediction = (url) => /^\/api\/predict\/?(\?|$)/.test(url);

/** Whether another prediction can be taken; it is counted until it is answered. */
export function takesPrediction(response) {
  if (atOnce >= MOST_AT_ONCE) return false;
  atOnce += 1;
  response.once("close", () => (atOnce -= 1));
  return true;
}

/** The methods that are answered at an address. */
export const methodsOf = (url) => (isPrediction(url) ? ["POST", "OPTIONS"] : ["GET", "HEAD", "OPTIONS"]);

/** Whether a request says itself that its body is too long; one that does not say is cut off while it is read. */
export const tooLong = (request) => Number(request.headers["content-length"] ?? 0) > MOST_BODY_BYTES;

/** Refuses a request without reading its body; the connection is not used again. */
export function refusalOf(response, status, message, headers = {}) {
  response.writeHead(status, {
    "content-type": "application/json",
    "x-content-type-options": "nosniff",
    "content-security-policy": "default-src 'none'; frame-ancestors 'none'",
    connection: "close",
    ...headers,
  });
  response.end(JSON.stringify({ message }));
}
