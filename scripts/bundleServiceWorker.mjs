// Bundles the service worker with the list of all that it keeps: the files named in .cache/kept.json, by their address,
// which changes with their content, and the pages, by the build.
import { readFileSync } from "node:fs";
import { bundleFile, importBundled } from "./bundle.mjs";

const { files, revision } = JSON.parse(readFileSync(".cache/kept.json", "utf8"));
const { SHELLS } = await importBundled("src/offline/shells.ts", "shells");
const kept = [...files, ...SHELLS.map((url) => ({ url, revision }))];
await bundleFile("src/offline/serviceWorker.ts", ".cache/sw.js", {
  platform: "browser",
  format: "iife",
  target: "es2022",
  minify: true,
  define: { KEPT: JSON.stringify(kept), "process.env.NODE_ENV": '"production"' },
});
