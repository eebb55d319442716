// Writes package-lock.json anew from package.json: with an entry for every platform's optional packages, also those
// that this machine's registry does not offer (`npm ci` wants them all), and without the addresses they came from.
import { readFileSync, rmSync, writeFileSync } from "node:fs";
import { run } from "./setup.mjs";

const SYSTEMS = ["darwin", "win32", "linux", "freebsd", "openbsd", "netbsd", "android", "sunos", "aix", "openharmony"];
const PROCESSORS = {
  arm64: "arm64",
  x64: "x64",
  ia32: "ia32",
  arm: "arm",
  ppc64: "ppc64",
  ppc64le: "ppc64",
  s390x: "s390x",
  riscv64: "riscv64",
  loong64: "loong64",
  mips64el: "mips64el",
  wasm32: "wasm32",
  universal: null,
};

/** For which systems and processors a package is, by its name. */
function platformOf(name) {
  if (name === "fsevents") return { os: ["darwin"] };
  const words = name.split("/").at(-1).split("-");
  const os = SYSTEMS.filter((system) => words.includes(system) || (system === "linux" && words.includes("linuxmusl")));
  const cpu = words.map((word) => PROCESSORS[word]).filter(Boolean);
  return os.length > 0 || cpu.length > 0
    ? { ...(cpu.length > 0 ? { cpu } : {}), ...(os.length > 0 ? { os } : {}) }
    : null;
}

rmSync("package-lock.json", { force: true });
rmSync("node_modules", { recursive: true, force: true });
run("npm", ["install", "--package-lock-only", "--no-audit", "--no-fund", "--loglevel=error"]);
const lock = JSON.parse(readFileSync("package-lock.json", "utf8"));
for (const [path, entry] of Object.entries(lock.packages)) {
  delete entry.resolved;
  for (const [name, range] of Object.entries(entry.optionalDependencies ?? {})) {
    const nested = `${path}/node_modules/${name}`;
    const top = `node_modules/${name}`;
    if (lock.packages[nested] || lock.packages[top]?.version) continue;
    const platform = platformOf(name);
    if (!platform) throw new Error(`${name} is optional and not to be had, and its name tells no platform.`);
    lock.packages[top] = {
      version: range.replace(/^[^\d]*/, ""),
      ...platform,
      optional: true,
      ...(entry.dev ? { dev: true } : {}),
    };
  }
}
const [project, ...rest] = Object.entries(lock.packages);
lock.packages = Object.fromEntries([project, ...rest.sort(([a], [b]) => (a < b ? -1 : 1))]);
writeFileSync("package-lock.json", `${JSON.stringify(lock, null, 2)}\n`);
