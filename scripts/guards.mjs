// What is refused before a request is handed to the application.

/** The largest body that is taken, in bytes: a plan, or what a box prints with a plan (`src/app/api/read-box`). */
const MOST_BODY_BYTES = 2 ** 20;
const MOST_BOX_BYTES = 18 * 2 ** 20;

/** As many requests as are worked on and may wait (`src/app/api/threads.ts`), two and eight. */
const MOST_AT_ONCE = 10;
let atOnce = 0;

/** What is answered by the threads. */
export const isForThreads = (url) => /^\/api\/(predict|read-box|practice-box|best-way)\/?(\?|$)/.test(url);
const isBox = (url) => /^\/api\/read-box\/?(\?|$)/.test(url);

/** Whether another request can be taken for them; it is counted until it is answered. */
export function takesAnother(response) {
  if (atOnce >= MOST_AT_ONCE) return false;
  atOnce += 1;
  response.once("close", () => (atOnce -= 1));
  return true;
}

/** The methods that are answered at an address. */
export const methodsOf = (url) => (isForThreads(url) ? ["POST", "OPTIONS"] : ["GET", "HEAD", "OPTIONS"]);

/**
 * Why a request is refused that says itself that its body is too long, or null; one that does not say is cut off while
 * it is read.
 */
export function tooLong({ url = "/", headers }) {
  const most = isBox(url) ? MOST_BOX_BYTES : MOST_BODY_BYTES;
  if (Number(headers["content-length"] ?? 0) <= most) return null;
  return isBox(url)
    ? "The body is larger than 18 MiB. The texts may have 8 MiB together."
    : "The body is larger than 1 MiB. Send one plan document.";
}

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
