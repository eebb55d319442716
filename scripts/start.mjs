// Installs, builds and starts Cortijo, and prints its address. PORT chooses the port (3000).
import { spawn } from "node:child_process";
import { join } from "node:path";
import { portOf } from "./port.mjs";
import { build, install, root } from "./setup.mjs";

const port = String(portOf(process.env.PORT));
install();
build();

const server = spawn(process.execPath, [join(root, "scripts/serve.mjs")], {
  stdio: ["ignore", "inherit", "inherit"],
  env: { ...process.env, PORT: port },
});
for (const signal of ["SIGINT", "SIGTERM"]) process.on(signal, () => server.kill(signal));
server.on("exit", (code, signal) => process.exit(signal ? 0 : (code ?? 1)));
