const config = {
  testEnvironment: "node",
  // Some tests do hundreds of transactions; on a busy machine they take their time.
  testTimeout: 60_000,
  // All cores: of two, one would be left idle otherwise.
  maxWorkers: "100%",
  roots: ["<rootDir>/src"],
  testMatch: ["**/*.test.ts", "**/*.test.tsx"],
  globalSetup: "<rootDir>/tests/unit/printSeed.mjs",
  setupFilesAfterEnv: ["<rootDir>/tests/unit/setSeed.mjs"],
  transform: {
    "^.+\\.tsx?$": [
      "@swc/jest",
      {
        jsc: {
          parser: { syntax: "typescript", tsx: true },
          target: "es2022",
          transform: { react: { runtime: "automatic" } },
        },
        module: { type: "commonjs" },
      },
    ],
    // Packages, and our own set-up, that are modules only.
    "/(node_modules|tests/unit)/.+\\.m?js$": ["@swc/jest", { jsc: { target: "es2022" }, module: { type: "commonjs" } }],
  },
  transformIgnorePatterns: ["/node_modules/(?!(temporal-polyfill|temporal-utils)/)"],
  moduleNameMapper: { "^@/(.*)$": "<rootDir>/src/$1" },
};

export default config;
