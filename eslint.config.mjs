import next from "eslint-config-next";
import typescript from "eslint-config-next/typescript";

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
    },
  },
];

export default config;
