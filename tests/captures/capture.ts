import { readFileSync } from "node:fs";
import { join } from "node:path";
import { gunzipSync } from "node:zlib";

/** Where they stand, from the project's root. */
const CAPTURES = join(process.cwd(), "tests", "captures");

/** What is so of each capture, by other sources of the same kernel. */
export const truths = <T>(): Record<string, T> =>
  JSON.parse(readFileSync(join(CAPTURES, "truth.json"), "utf8")) as Record<string, T>;

/**
 * What a real kernel has printed, byte for byte.
 *
 * @example capture("22-raid5-4-one-failed", "mdstat.txt")
 */
export const capture = (folder: string, file: "lsblk.txt" | "mdstat.txt"): string =>
  gunzipSync(readFileSync(join(CAPTURES, folder, `${file}.gz`))).toString("utf8");
