import next from "eslint-config-next";
import typescript from "eslint-config-next/typescript";

const TESTS = ["**/*.test.ts", "src/core/testing/**", "tests/**"];

const config = [
  ...next,
  ...typescript,
  { ignores: [".next/**", ".cache/**", "node_modules/**", "src/**/generated/**", "next-env.d.ts", "test-results/**"] },
  {
    rules: {
      "@typescript-eslint/no-unused-vars": ["error", { argsIgnorePattern: "^_", varsIgnorePattern: "^_" }],
      "@typescript-eslint/no-explicit-any": "error",
      "no-eval": "error",
      "no-new-func": "error",
      eqeqeq: "error",
      "max-len": [
        "error",
        {
          code: 120,
          ignoreStrings: true,
          ignoreTemplateLiterals: true,
          ignoreRegExpLiterals: true,
          // An example and its result stand on one line.
          ignorePattern: "^ *\\* @example ",
        },
      ],
      complexity: ["error", 15],
    },
  },
  // A function that does not fit on a screen does more than one thing; components may be as long as their markup.
  {
    files: ["src/**/*.ts"],
    ignores: TESTS,
    rules: { "max-lines-per-function": ["error", { max: 60, skipBlankLines: true, skipComments: true }] },
  },
  {
    files: ["src/**/*.tsx"],
    rules: { "max-lines-per-function": ["error", { max: 120, skipBlankLines: true, skipComments: true }] },
  },
];

export default config;
