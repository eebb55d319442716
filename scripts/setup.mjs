// What every command shares: installing what is missing, and doing slow work only when its inputs changed.
import { spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import { dirname, join, relative } from "node:path";
import { brotliCompressSync, gzipSync } from "node:zlib";
import { fileURLToPath } from "node:url";

export const root = join(dirname(fileURLToPath(import.meta.url)), "..");
process.chdir(root);
process.env.NEXT_TELEMETRY_DISABLED = "1";

/** Runs a command with its output on this terminal; throws with the command's name when it fails. */
export function run(command, args, options = {}) {
  const result = spawnSync(command, args, { stdio: "inherit", ...options });
  if (result.error) throw result.error;
  if (result.status !== 0) throw new Error(`${command} ${args.join(" ")} ended with ${result.status ?? result.signal}`);
}

/** The path of a program that the project's own packages bring. */
export const bin = (name) => join(root, "node_modules", ".bin", name);

function filesBelow(path) {
  if (!existsSync(path)) return [];
  if (statSync(path).isFile()) return [path];
  return readdirSync(path, { withFileTypes: true })
    .filter((entry) => entry.name !== "generated")
    .flatMap((entry) => filesBelow(join(path, entry.name)))
    .sort();
}

/** A hash over the contents of files and folders, to tell whether work has to be done again. */
export function hashOf(paths) {
  const hash = createHash("sha256");
  for (const file of paths.flatMap((path) => filesBelow(join(root, path)))) {
    hash.update(relative(root, file)).update("\0").update(readFileSync(file)).update("\0");
  }
  return hash.digest("hex");
}

/** Does `work` unless it was done for the same inputs before and `product` still stands. */
export function unlessDone(name, inputs, product, work) {
  const stamp = join(root, ".cache", `${name}.stamp`);
  const hash = hashOf(inputs);
  if (existsSync(join(root, product)) && existsSync(stamp) && readFileSync(stamp, "utf8") === hash) return false;
  work();
  mkdirSync(dirname(stamp), { recursive: true });
  writeFileSync(stamp, hash);
  return true;
}

/** Installs the packages of package-lock.json when they are missing or the lock file has changed. */
export function install() {
  unlessDone("install", ["package-lock.json"], "node_modules/.package-lock.json", () => {
    console.log("Installing packages …");
    run("npm", ["ci", "--no-audit", "--no-fund", "--loglevel=error"]);
  });
}

/** Compiles the JSON Schemas to validators (no code is made at run time). */
export function generate() {
  unlessDone(
    "validators",
    [
      "scripts/generate.mjs",
      "src/core/document/schema",
      "src/exchange/inventory/schema",
      "src/exchange/smart/schema",
      "package-lock.json",
    ],
    "src/exchange/smart/generated/validateSmartctl.cjs",
    () => run(process.execPath, ["scripts/generate.mjs"]),
  );
}

/** Bundles what the threads of the server run. The bundler runs by itself: it may not be installed yet here. */
export function bundleThreads() {
  run(process.execPath, ["scripts/bundle.mjs", "src/workers/answer.thread.ts", ".cache/answer.thread.mjs"]);
}

/**
 * Bundles the service worker with the list of all that it keeps: every file of the build, by its address, which changes
 * with its content, and the pages, by the build. It is written last: a build without it is not whole.
 */
function bundleServiceWorker() {
  const files = filesBelow(join(root, ".next/static"))
    .filter((path) => /\.(js|css|svg|woff2)$/.test(path))
    .map((path) => ({ url: `/_next/${relative(join(root, ".next"), path)}`, revision: null }));
  const revision = readFileSync(join(root, ".next/BUILD_ID"), "utf8").trim();
  writeFileSync(join(root, ".cache/kept.json"), JSON.stringify({ files, revision }));
  run(process.execPath, ["scripts/bundleServiceWorker.mjs"]);
}

/**
 * Scripts of such sizes are compiled whole when they load. A smaller one the browser does not compile beside the page,
 * and a larger one is a library of which little is used.
 */
const COMPILED_WHOLE_BYTES = { least: 20_000, most: 400_000 };

/**
 * Says of the scripts that the browser may compile all their functions while they load, beside the page: it would
 * otherwise compile each when it is first called, and hold up the page by that. Then compresses all files: Brotli for
 * most, gzip for browsers that reach the server by plain http from another machine, which are not offered Brotli.
 */
function finishFiles(files) {
  for (const file of files) {
    let content = readFileSync(file);
    const { least, most } = COMPILED_WHOLE_BYTES;
    if (file.endsWith(".js") && content.length > least && content.length < most) {
      content = Buffer.concat([Buffer.from("//# allFunctionsCalledOnLoad\n"), content]);
      writeFileSync(file, content);
    }
    writeFileSync(`${file}.br`, brotliCompressSync(content));
    writeFileSync(`${file}.gz`, gzipSync(content, { level: 9 }));
  }
}

/** Builds the application for production when its sources have changed. */
export function build() {
  generate();
  unlessDone(
    "build",
    [
      "src",
      "scripts/generate.mjs",
      "scripts/setup.mjs",
      "scripts/bundle.mjs",
      "scripts/bundleServiceWorker.mjs",
      "next.config.ts",
      "postcss.config.mjs",
      "tsconfig.json",
      "package-lock.json",
    ],
    ".next/BUILD_ID",
    () => {
      console.log("Building …");
      bundleThreads();
      run(bin("next"), ["build"]);
      finishFiles(filesBelow(join(root, ".next/static")).filter((path) => /\.(js|css|svg)$/.test(path)));
      bundleServiceWorker();
    },
  );
}

/** Gets the mkfs tools for the system tests where that is possible; without them those tests are skipped. */
export function fileSystemTools() {
  if (process.getuid?.() !== 0 || !existsSync("/usr/bin/apt-get")) return;
  const missing = { xfsprogs: "/sbin/mkfs.xfs", "btrfs-progs": "/bin/mkfs.btrfs", e2fsprogs: "/sbin/mkfs.ext4" };
  const wanted = Object.entries(missing)
    .filter(([, path]) => !existsSync(path) && !existsSync(`/usr${path}`))
    .map(([name]) => name);
  if (wanted.length === 0) return;
  const quiet = { stdio: ["ignore", "ignore", "inherit"], env: { ...process.env, DEBIAN_FRONTEND: "noninteractive" } };
  try {
    run("apt-get", ["update", "-qq"], quiet);
    run("apt-get", ["install", "-y", "--no-install-recommends", ...wanted], quiet);
  } catch (error) {
    console.warn(`The tools for the system tests are not to be had: ${error instanceof Error ? error.message : error}`);
  }
}

/** Finds a Chromium, installing Debian's where there is none. Returns its path. */
export function chromium() {
  const find = () => ["/usr/bin/chromium", "/usr/bin/chromium-browser"].find((path) => existsSync(path));
  const found = process.env.CHROMIUM ?? find();
  if (found) return found;
  console.log("Installing Debian's Chromium …");
  const quiet = { stdio: ["ignore", "ignore", "inherit"], env: { ...process.env, DEBIAN_FRONTEND: "noninteractive" } };
  run("apt-get", ["update", "-qq"], quiet);
  run("apt-get", ["install", "-y", "--no-install-recommends", "chromium"], quiet);
  const installed = find();
  if (!installed) throw new Error("No Chromium found after installing it. Set CHROMIUM to the path of one.");
  return installed;
}
