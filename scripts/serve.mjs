// Serves the built application: Next answers everything but the files of the build, which are sent as they were
// compressed at build time (Brotli, a good tenth smaller than what can be done on the fly). PORT chooses the port.
import { createServer } from "node:http";
import next from "next";
import sirv from "sirv";

const port = Number(process.env.PORT ?? "3000");
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

const server = createServer((request, response) => {
  if (!request.url?.startsWith(`${PREFIX}/`)) return void handle(request, response);
  const { url } = request;
  request.url = url.slice(PREFIX.length);
  files(request, response, () => {
    request.url = url;
    void handle(request, response);
  });
});
server.on("error", (error) => {
  console.error(
    error.code === "EADDRINUSE" ? `Port ${port} is taken. Choose another: PORT=3001 npm start.` : error.message,
  );
  process.exit(1);
});
server.listen(port, () => console.log(`Cortijo is at http://localhost:${port}  (stop it with Ctrl+C)`));
for (const signal of ["SIGINT", "SIGTERM"])
  process.on(signal, () => server.close(() => process.exit(0)) && server.closeAllConnections());
