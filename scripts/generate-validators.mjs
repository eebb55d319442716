// Compiles every JSON Schema of the project to a stand-alone validator, so that nothing is compiled
// in the browser (the content security policy forbids making code from strings).
import Ajv2020 from "ajv/dist/2020.js";
import standalone from "ajv/dist/standalone/index.js";
import { mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";

const root = join(dirname(fileURLToPath(import.meta.url)), "..");

const schemas = [
  { schema: "src/core/document/schema/plan-1.json", out: "src/core/document/generated/validatePlan" },
  { schema: "src/exchange/inventory/schema/lsblk.json", out: "src/exchange/inventory/generated/validateLsblk" },
  { schema: "src/exchange/smart/schema/smartctl.json", out: "src/exchange/smart/generated/validateSmartctl" },
];

const declaration = `import type { ValidateFunction } from "ajv";
declare const validate: ValidateFunction;
export default validate;
`;

for (const { schema, out } of schemas) {
  const ajv = new Ajv2020({
    allErrors: true,
    strict: true,
    strictRequired: false,
    allowUnionTypes: true,
    code: { source: true, lines: true },
  });
  const compiled = ajv.compile(JSON.parse(readFileSync(join(root, schema), "utf8")));
  mkdirSync(dirname(join(root, out)), { recursive: true });
  const code = `// Made from ${schema} by scripts/generate-validators.mjs. Not kept in git.\n${standalone.default(ajv, compiled)}`;
  writeFileSync(join(root, `${out}.cjs`), code);
  writeFileSync(join(root, `${out}.d.cts`), declaration);
}
