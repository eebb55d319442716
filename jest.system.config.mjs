import base from "./jest.config.mjs";

const config = {
  ...base,
  roots: ["<rootDir>/tests/system"],
  testMatch: ["**/*.system.ts"],
  testTimeout: 120_000,
  maxWorkers: 1,
};

export default config;
