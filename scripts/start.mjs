// Installs, builds and starts Cortijo, and prints its address. PORT chooses the port (3000).
import { spawn } from "node:child_process";
import { join } from "node:path";
import { build, install, root } from "./setup.mjs";

const port = process.env.PORT ?? "3000";
if (!/^\d{1,5}$/.test(port) || Number(port) > 65535) {
  console.error(
    `PORT is "${port}", which is no port number. Use one from 1 to 65535, for instance PORT=8080 npm start.`,
  );
  process.exit(2);
}
install();
build();

const server = spawn(process.execPath, [join(root, "scripts/serve.mjs")], {
  stdio: ["ignore", "inherit", "inherit"],
  env: { ...process.env, PORT: port },
});
for (const signal of ["SIGINT", "SIGTERM"]) process.on(signal, () => server.kill(signal));
server.on("exit", (code, signal) => process.exit(signal ? 0 : (code ?? 1)));
