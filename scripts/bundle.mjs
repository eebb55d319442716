// Bundles a file of the project for Node, with all that it imports: for the benchmark, the attacks, and the threads of
// the server. As a program: `node scripts/bundle.mjs <entry> <outfile>`.
import { build } from "esbuild";
import { join } from "node:path";
import { fileURLToPath, pathToFileURL } from "node:url";

const root = join(fileURLToPath(import.meta.url), "../..");

/** Bundles a file. Options go to the bundler. */
export const bundleFile = (entry, outfile, options = {}) =>
  build({
    entryPoints: [join(root, entry)],
    outfile: join(root, outfile),
    bundle: true,
    platform: "node",
    format: "esm",
    tsconfig: join(root, "tsconfig.json"),
    logLevel: "error",
    ...options,
  });

/** Bundles a file and imports it. */
export async function importBundled(entry, name, options) {
  const outfile = join(".cache", `${name}.mjs`);
  await bundleFile(entry, outfile, options);
  return import(pathToFileURL(join(root, outfile)).href);
}

if (process.argv[1] === fileURLToPath(import.meta.url)) await bundleFile(process.argv[2], process.argv[3]);
