// The unit tests as mutation testing runs them: those that stand with the folder that is broken, and those of folders
// that say the same in the large, since all others would take hours; properties for as long as they need to find out.
import config from "./jest.config.mjs";

const folder = process.env.MUTATE_FOLDER ?? "steps";

/** Where else tests stand that speak of a folder. */
const ALSO = {
  steps: ["walk"],
  calendar: ["schedule"],
  layouts: ["prediction"],
  data: ["schedule"],
};

const { globalSetup: _said, ...rest } = config;

const mutate = {
  ...rest,
  roots: [folder, ...(ALSO[folder] ?? [])].map((name) => `<rootDir>/src/core/${name}`),
  testSequencer: "<rootDir>/tests/unit/quickFirst.mjs",
  setupFilesAfterEnv: ["<rootDir>/tests/unit/setSeed.mjs", "<rootDir>/tests/unit/shortProperties.mjs"],
};

export default mutate;
