import next from "eslint-config-next";
import typescript from "eslint-config-next/typescript";
import ownValues from "./scripts/lint/ownValues.mjs";

const TESTS = ["**/*.test.ts", "src/core/testing/**", "tests/**"];

/** Layouts by ids that are nothing else; "single", "span" and "chunk-parity" are also words of bands and of pages. */
const LAYOUT_IDS = "raid[0-9]+|triple-parity|mirror-onto-one|hybrid-[12]|parity-drive-[12]|copies-[23]";

const STEP_KINDS =
  "create-group|add-group|mirror-drive|widen-group|replace-drive|claim-space|change-level|remove-spare|remove-drive|grow-volume|shrink-volume|grow-file-system|test-drive|wipe-drive|back-up|verify|change-parity-drive|rebalance|rebuild-from-backup";

/** Selectors for code that asks for an id: by comparing, by its beginning, by a list or a pattern. */
function idQuestions(ids, what, folder) {
  const message = `Do not ask for the id of a ${what}: make what you want to know a property of it, in ${folder}.`;
  const literal = `Literal[value=/^(${ids})$/]`;
  return [
    `BinaryExpression[operator=/^[!=]==$/] > ${literal}`,
    `SwitchCase > ${literal}`,
    `CallExpression[callee.property.name="includes"] > MemberExpression > ArrayExpression > ${literal}`,
    `CallExpression[callee.property.name="startsWith"] > MemberExpression > MemberExpression[property.name="${what}"]`,
    `CallExpression[callee.property.name="test"] > MemberExpression[property.name="${what}"]`,
  ].map((selector) => ({ selector, message }));
}

const STEP_QUESTIONS = idQuestions(STEP_KINDS, "kind", "steps/").slice(0, 3);

/** Plurals and lists come from words/, so that no sentence says "1 drives". */
const OWN_WORDS = [
  {
    selector: "NewExpression[callee.object.name='Intl'][callee.property.name=/^(ListFormat|PluralRules)$/]",
    message: "Lists and plurals come from core/words.",
  },
];

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
      complexity: ["error", 15],
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
    },
  },
  // A layout or a step says what it is by properties of its own; outside its folder nobody compares its id.
  {
    files: ["src/**/*.{ts,tsx}"],
    ignores: [...TESTS, "src/core/layouts/**", "src/core/words/**", "src/core/document/samples/**"],
    rules: {
      "no-restricted-syntax": [
        "error",
        ...idQuestions(LAYOUT_IDS, "layout", "layouts/"),
        ...STEP_QUESTIONS,
        ...OWN_WORDS,
      ],
    },
  },
  {
    files: ["src/**/*.{ts,tsx}"],
    ignores: [...TESTS, "src/core/records/**"],
    plugins: { cortijo: { rules: { "own-values": ownValues } } },
    languageOptions: { parserOptions: { projectService: true } },
    rules: { "cortijo/own-values": "error" },
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
