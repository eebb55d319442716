// Serves the built application: Next answers everything but the files of the build, which are sent as they were
// compressed at build time (Brotli, a good tenth smaller than what can be done on the fly; gzip for who asks for that).
import { readFileSync } from "node:fs";
import { createServer } from "node:http";
import next from "next";
import sirv from "sirv";
import { isForThreads, methodsOf, refusalOf, takesAnother, tooLong } from "./guards.mjs";
import { portOf } from "./port.mjs";

const port = portOf(process.env.PORT);
/** How long answers that are under way may take when the server is told to stop, in milliseconds. */
const PATIENCE_MS = 10_000;

const app = next({ dev: false, dir: process.cwd(), port });
await app.prepare();
const handle = app.getRequestHandler();
const files = sirv(".next/static", {
  brotli: true,
  gzip: true,
  etag: true,
  immutable: true,
  maxAge: 31_536_000,
  setHeaders: (response) => response.setHeader("x-content-type-options", "nosniff"),
});
const PREFIX = "/_next/static";

/** The service worker, which browsers ask for anew at each visit. */
const serviceWorker = readFileSync(".cache/sw.js");
function sendServiceWorker(response) {
  response.writeHead(200, {
    "content-type": "text/javascript; charset=utf-8",
    "cache-control": "no-cache",
    "x-content-type-options": "nosniff",
    "content-security-policy": "default-src 'none'; connect-src 'self'; script-src 'self'",
  });
  response.end(serviceWorker);
}

const server = createServer((request, response) => {
  const { url = "/", method = "GET" } = request;
  const allowed = methodsOf(url);
  if (!allowed.includes(method))
    return refusalOf(response, 405, `${method} is not answered here.`, { allow: allowed.join(", ") });
  const refused = tooLong(request);
  if (refused) return refusalOf(response, 413, refused);
  // Who cannot be answered is told so before anything is done for it: a crowd must not hold up the pages.
  if (isForThreads(url) && method === "POST" && !takesAnother(response))
    return refusalOf(response, 503, "There is too much to work out at once. Try again in some seconds.", {
      "retry-after": "5",
    });
  if (url.split("?")[0] === "/sw.js") return sendServiceWorker(response);
  if (!url.startsWith(`${PREFIX}/`)) return void handle(request, response);
  request.url = url.slice(PREFIX.length);
  files(request, response, () => {
    request.url = url;
    void handle(request, response);
  });
});
// A method that is no word of HTTP does not even become a request.
server.on("clientError", (error, socket) => {
  const status = error.code === "HPE_INVALID_METHOD" ? "405 Method Not Allowed\r\nAllow: GET, HEAD" : "400 Bad Request";
  if (socket.writable) socket.end(`HTTP/1.1 ${status}\r\nConnection: close\r\nContent-Length: 0\r\n\r\n`);
});
server.on("error", (error) => {
  console.error(
    error.code === "EADDRINUSE" ? `Port ${port} is taken. Choose another: PORT=3001 npm start.` : error.message,
  );
  process.exit(1);
});
/** How often: code that has run some times is compiled. */
const WARM = 10;

/** Asks for pages and predictions, so that whoever comes first does not wait for their code to be loaded. */
async function warmUp() {
  const base = `http://localhost:${port}`;
  const signal = AbortSignal.timeout(10_000);
  const json = { method: "POST", headers: { "content-type": "application/json" }, body: "{}", signal };
  for (let i = 0; i < WARM; i += 1) {
    const answers = await Promise.allSettled([fetch(base, { signal }), fetch(`${base}/api/predict`, json)]);
    await Promise.allSettled(answers.map(({ value }) => value?.text()));
  }
}

server.listen(port, async () => {
  await warmUp();
  console.log(`Cortijo is at http://localhost:${port}  (stop it with Ctrl+C)`);
});

let stopping = false;
for (const signal of ["SIGINT", "SIGTERM"])
  process.on(signal, () => {
    if (stopping) return;
    stopping = true;
    server.close(() => process.exit(0));
    server.closeIdleConnections();
    setTimeout(() => {
      server.closeAllConnections();
      process.exit(0);
    }, PATIENCE_MS).unref();
  });
