// Installs, builds and starts Cortijo, and prints its address. PORT chooses the port (3000).
import { spawn } from "node:child_process";
import { bin, build, install } from "./setup.mjs";

const port = process.env.PORT ?? "3000";
if (!/^\d{1,5}$/.test(port) || Number(port) > 65535) {
  console.error(`PORT is "${port}", which is no port number. Use one from 1 to 65535, for instance PORT=8080 npm start.`);
  process.exit(2);
}
install();
build();

const server = spawn(bin("next"), ["start", "--port", port], { stdio: ["ignore", "pipe", "inherit"] });
let told = false;
server.stdout.on("data", (chunk) => {
  if (told || !/ready/i.test(String(chunk))) return;
  told = true;
  console.log(`Cortijo is at http://localhost:${port}  (stop it with Ctrl+C)`);
});
for (const signal of ["SIGINT", "SIGTERM"]) process.on(signal, () => server.kill(signal));
server.on("exit", (code, signal) => {
  if (!told) console.error(`Cortijo could not start on port ${port}. If the port is taken, choose another: PORT=3001 npm start.`);
  process.exit(signal ? 0 : (code ?? 1));
});
