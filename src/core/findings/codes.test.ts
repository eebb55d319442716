import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";

const filesBelow = (folder: string): string[] =>
  readdirSync(folder, { withFileTypes: true }).flatMap((entry) =>
    entry.isDirectory()
      ? entry.name === "generated"
        ? []
        : filesBelow(join(folder, entry.name))
      : /\.(tsx?|txt)$/.test(entry.name)
        ? [join(folder, entry.name)]
        : [],
  );
const isTest = (file: string) => /\.(test|spec)\.tsx?$|\.txt$/.test(file);
const read = (files: readonly string[]) => files.map((file) => readFileSync(file, "utf8")).join("\n");

test("every finding and every problem has a code that some test names", () => {
  const sources = read(filesBelow("src/core").filter((file) => !isTest(file) && !/testing|simulator/.test(file)));
  const tests = read([...filesBelow("src"), ...filesBelow("tests")].filter(isTest));
  const codes = new Set(
    [...sources.matchAll(/code: (?:\w+ \? )?"([a-z-]+)"|against\(\s*"(?:block|warn|note)",\s*"([a-z-]+)"/g)].map(
      ([, own, other]) => own ?? other ?? "",
    ),
  );
  expect(codes.size).toBeGreaterThan(90);
  expect([...codes].filter((code) => !new RegExp(`["\` /]${code}(["\`]| \\[)`).test(tests))).toEqual([]);
});
