// Mutation testing of one folder of the core at a time: `npm run mutate steps`. See scripts/mutate.mjs.
const folder = process.env.MUTATE_FOLDER ?? "steps";

const stryker = {
  packageManager: "npm",
  testRunner: "jest",
  plugins: ["@stryker-mutator/jest-runner", "./scripts/mutateReporter.mjs"],
  jest: { configFile: "jest.mutate.config.mjs", enableFindRelatedTests: false },
  coverageAnalysis: "perTest",
  mutate: [`src/core/${folder}/**/*.ts`, "!src/**/*.test.ts", "!src/**/generated/**"],
  // What a sentence says is no matter of these tests, nor is the text of a doc comment.
  mutator: { excludedMutations: ["StringLiteral"] },
  ignorePatterns: [".next", ".cache", "docs/screenshots", "test-results", "coverage"],
  incremental: true,
  incrementalFile: `.cache/mutate/${folder}.${process.env.MUTATE_TESTS ?? "all"}.json`,
  reporters: ["lines", "progress-append-only"],
  concurrency: 2,
  timeoutMS: 20_000,
  timeoutFactor: 3,
  tempDirName: ".cache/stryker",
  allowConsoleColors: false,
};

export default stryker;
