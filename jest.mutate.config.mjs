// The unit tests as mutation testing runs them: those that stand with the folder that is broken, and those of folders
// that say the same in the large, since all others would take hours. Plain tests are tried first, without the files that
// hold properties; properties then for as long as they need to find out.
import { readdirSync, readFileSync } from "node:fs";
import config from "./jest.config.mjs";

const folder = process.env.MUTATE_FOLDER ?? "steps";

/** Where else tests stand that speak of a folder. */
const ALSO = {
  steps: ["walk"],
  calendar: ["schedule"],
  layouts: ["prediction"],
  data: ["schedule"],
};

const folders = [folder, ...(ALSO[folder] ?? [])];
const withProperties = folders.flatMap((name) =>
  readdirSync(`src/core/${name}`)
    .filter((file) => file.endsWith(".test.ts"))
    .filter((file) => readFileSync(`src/core/${name}/${file}`, "utf8").includes("fast-check"))
    .map((file) => `/src/core/${name}/${file}$`),
);

const { globalSetup: _said, ...rest } = config;

const mutate = {
  ...rest,
  roots: folders.map((name) => `<rootDir>/src/core/${name}`),
  testPathIgnorePatterns: ["/node_modules/", ...(process.env.MUTATE_TESTS === "plain" ? withProperties : [])],
  setupFilesAfterEnv: ["<rootDir>/tests/unit/setSeed.mjs", "<rootDir>/tests/unit/shortProperties.mjs"],
};

export default mutate;
