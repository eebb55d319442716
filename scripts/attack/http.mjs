// Attacks on a running server: spoilt requests, and a load.
import { spawn } from "node:child_process";

/** Starts the server, waits until it says that it is there, and gives its address and a way to end it. */
export async function serve(port) {
  const server = spawn(process.execPath, ["scripts/serve.mjs"], {
    stdio: ["ignore", "pipe", "ignore"],
    env: { ...process.env, PORT: String(port) },
  });
  await new Promise((resolve, reject) => {
    server.stdout.on("data", (said) => `${said}`.includes("Cortijo is at") && resolve());
    server.on("exit", () => reject(new Error(`The server could not be started on port ${port}.`)));
  });
  return { base: `http://localhost:${port}`, end: () => server.kill() };
}

/** Sends requests from several connections at once until `next` gives none; returns how many got which status. */
export async function send(base, connections, next, isRight = () => true) {
  const statuses = {};
  const wrong = [];
  const count = (name) => (statuses[name] = (statuses[name] ?? 0) + 1);
  const one = async () => {
    for (let request = next(); request; request = next()) {
      try {
        const { path, ...rest } = request;
        const response = await fetch(base + path, rest);
        const text = await response.text();
        count(response.status);
        if (!isRight(response.status, text)) wrong.push(`${response.status} ${path} ${text.slice(0, 300)}`);
      } catch (error) {
        count(`no answer (${error.cause?.code ?? error.message})`);
      }
    }
  };
  await Promise.all(Array.from({ length: connections }, one));
  return { statuses, wrong };
}

/** How long `GET /` takes meanwhile, in milliseconds, until stopped; the first, with which this begins, not counted. */
export async function watchPage(base) {
  await fetch(`${base}/`).then((response) => response.text());
  const times = [];
  let stopped = false;
  const watching = (async () => {
    while (!stopped) {
      const begun = performance.now();
      await fetch(`${base}/`).then((response) => response.text());
      times.push(performance.now() - begun);
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
  })();
  return async () => {
    stopped = true;
    await watching;
    times.sort((a, b) => a - b);
    const at = (share) => Math.round(times[Math.min(times.length - 1, Math.floor(times.length * share))]);
    return (
      `GET / meanwhile, ${times.length} times: median ${at(0.5)} ms, 95 % within ${at(0.95)} ms, longest ` +
      `${at(1)} ms`
    );
  };
}
