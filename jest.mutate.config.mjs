// The unit tests as mutation testing runs them: those that stand with the folder that is broken, and those of folders
// that say the same in the large, since all others would take hours; properties for as long as they need to find out.
// They are drawn into one file by scripts/mutate.mjs, so that the core is loaded once for each mutant.
import config from "./jest.config.mjs";

const { globalSetup: _said, ...rest } = config;

const mutate = {
  ...rest,
  roots: ["<rootDir>/tests/unit"],
  testMatch: ["<rootDir>/tests/unit/drawn.test.ts"],
  setupFilesAfterEnv: ["<rootDir>/tests/unit/setSeed.mjs", "<rootDir>/tests/unit/shortProperties.mjs"],
};

export default mutate;
