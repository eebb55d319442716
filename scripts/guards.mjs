// What is refused before a request is handed to the application.

/** The largest body that is taken, in bytes. */
const MOST_BODY_BYTES = 2 ** 20;

/** The methods that are answered at an address. */
export const methodsOf = (url) =>
  /^\/api\/predict\/?(\?|$)/.test(url) ? ["POST", "OPTIONS"] : ["GET", "HEAD", "OPTIONS"];

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
