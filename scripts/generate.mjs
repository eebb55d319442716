// Makes what follows from the JSON Schemas: for each a stand-alone validator, so that nothing is compiled in the
// browser
// (the content security policy forbids making code from strings), and for the plan document its TypeScript types.
import Ajv2020 from "ajv/dist/2020.js";
import standalone from "ajv/dist/standalone/index.js";
import { compile } from "json-schema-to-typescript";
import { mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";

const root = join(dirname(fileURLToPath(import.meta.url)), "..");

const PLAN = "src/core/document/schema/plan-1.json";

const schemas = [
  { schema: PLAN, out: "src/core/document/generated/validatePlan" },
  {
    schema: "src/exchange/bestWay/schema/best-way.json",
    out: "src/exchange/bestWay/generated/validateBestWay",
  },
  { schema: "src/exchange/inventory/schema/lsblk.json", out: "src/exchange/inventory/generated/validateLsblk" },
  {
    schema: "src/exchange/practiceBox/schema/practice.json",
    out: "src/exchange/practiceBox/generated/validatePractice",
  },
  { schema: "src/exchange/sheet/schema/sheet.json", out: "src/exchange/sheet/generated/validateSheet" },
  { schema: "src/exchange/smart/schema/smartctl.json", out: "src/exchange/smart/generated/validateSmartctl" },
];

const declaration = `import type { ValidateFunction } from "ajv";
declare const validate: ValidateFunction;
export default validate;
`;

const read = (schema) => JSON.parse(readFileSync(join(root, schema), "utf8"));
/** The plan's schema, from which its limits are taken too. */
const { properties, $defs } = read(PLAN);
const madeFrom = (schema) => `// Made from ${schema} by scripts/generate.mjs. Not kept in git.\n`;

function write(path, text) {
  mkdirSync(dirname(join(root, path)), { recursive: true });
  writeFileSync(join(root, path), text);
}

/**
 * Ajv copies all errors so far for each thing with an error more, which takes minutes for a hostile megabyte of them.
 * In the code that it makes they are gathered in one list instead.
 */
function gathering(code) {
  const copies = /vErrors\.concat\((\w+)\.errors\)/g;
  if (!copies.test(code) && code.includes(".concat(")) throw new Error("Ajv's code has changed: see `gathering`.");
  const gather = "function gathered(all, more) { for (const error of more) all.push(error); return all; }\n";
  return code.replace(copies, "gathered(vErrors, $1.errors)") + gather;
}

/** A schema without its descriptions: its validator carries it along, and the browser needs no words about it. */
function bare(schema) {
  if (Array.isArray(schema)) return schema.map(bare);
  if (typeof schema !== "object" || schema === null) return schema;
  // A property may be called so; then it is an object.
  const kept = Object.entries(schema).filter(([key, value]) => key !== "description" || typeof value !== "string");
  const node = Object.fromEntries(kept.map(([key, value]) => [key, bare(value)]));
  // The shapes of which something has to be one stand where they are named: an error's path then says of which it is.
  if (node.oneOf && !node.discriminator) node.oneOf = node.oneOf.map(({ $ref }) => bare($defs[$ref.split("/").at(-1)]));
  // Of entries that are known to be texts, whether one stands twice is found without comparing each with each.
  if (node.uniqueItems && node.items?.$ref) node.items = { type: "string", ...node.items };
  return node;
}

/**
 * What of a schema a validator looks up, by the paths at which it does: of the names of properties, whether one is
 * there; of anything else, what stands there.
 */
function pruned(schema, paths) {
  const kept = {};
  // Names come before what is looked up below them.
  for (const path of paths.filter(Boolean).sort((a, b) => a.length - b.length)) {
    const keys = path.split(".");
    const value = keys.reduce((at, key) => at?.[key], schema);
    const isNames = keys.at(-1) === "properties";
    keys.slice(0, -1).reduce((at, key) => (at[key] ||= {}), kept)[keys.at(-1)] = isNames
      ? { ...Object.fromEntries(Object.keys(value).map((name) => [name, 0])) }
      : value;
  }
  return kept;
}

/**
 * The code of the plan's validator made short, since the first page loads it: its errors say by which rule of the
 * schema they are only where that is asked, they are made in one place, and of the schema it carries what it looks up.
 */
function shortened(code) {
  const helpers = `function added(all, one) { if (all === null) return [one]; all.push(one); return all; }
function told(all, instancePath, keyword, params) { return added(all, { instancePath, keyword, params }); }
`;
  const short = code
    // No rule asks which fields have been looked at, nor where a value stands: its path is enough.
    .replace(/^validate\d+\.evaluated = .*\n/gm, "")
    .replace(
      /const evaluated0 = .*\nif\(evaluated0\.dynamicProps\)\{\n.*\n\}\nif\(evaluated0\.dynamicItems\)\{\n.*\n\}\n/g,
      "",
    )
    .replace(/^evaluated0\.\w+ = .*\n/gm, "")
    .replace(/, parentData, parentDataProperty, rootData=data, dynamicAnchors=\{\}\}/g, "}")
    .replace(/,parentData[:,][^\n]*?,rootData,dynamicAnchors\}/g, "}")
    // What is finite is a number: Ajv asks both, and the first wherever the second.
    .replace(/ \|\| isNaN\(\w+\)/g, "")
    .replace(
      /\(\(typeof (\w+) == "number"\) && \(!\(\1 % 1\) && !isNaN\(\1\)\)\) && \(isFinite\(\1\)\)/g,
      "Number.isInteger($1)",
    )
    .replace(/\(typeof (\w+) == "number"\) && \(isFinite\(\1\)\)/g, "Number.isFinite($1)")
    .replace(/ && !isNaN\(\w+\)/g, "")
    .replace(/,schemaPath:"([^"]*)"/g, (all, path) => (path.includes("/oneOf/") ? all : ""))
    .replace(
      /if\(vErrors === null\)\{\s*vErrors = \[(\w+)\];\s*\}\s*else \{\s*vErrors\.push\(\1\);\s*\}\s*errors\+\+;/g,
      "vErrors=added(vErrors,$1);errors++;",
    )
    .replace(
      /const (err\d+) = (\{.*\});\s*vErrors=added\(vErrors,\1\);errors\+\+;/g,
      "vErrors=added(vErrors,$2);errors++;",
    )
    .replace(
      /vErrors=added\(vErrors,\{instancePath(:?)((?:(?!schemaPath|vErrors=added).)*?),keyword:("[^"]*"),params:((?:(?!vErrors=added|propertyName).)*?)\}\);errors\+\+;/g,
      (_, colon, path, keyword, params) =>
        `vErrors=told(vErrors,${colon ? path : "instancePath"},${keyword},${params});errors++;`,
    );
  // The answers that something may have stand in the schema: they are looked up there, and not written out again.
  const asked = short.replace(
    /if\(!\(+(data\d*) === "[^\n]*\n(vErrors=told\(vErrors,[^\n]*"enum",\{allowedValues: ([\w.]+)\})/g,
    (_, data, error, allowed) => `if(!${allowed}.includes(${data})){\n${error}`,
  );
  const lookedUp = asked.replace(/^const (schema\d+) = (\{.*\});$/gm, (_, name, schema) => {
    const paths = [...asked.matchAll(new RegExp(`\\b${name}((?:\\.\\w+)*)`, "g"))].map(([, path]) => path.slice(1));
    return `const ${name} = ${JSON.stringify(pruned(JSON.parse(schema), paths))};`;
  });
  // What is left of them would be asked for and not be there.
  if (lookedUp.length > 0.7 * code.length || /evaluated|parentData|rootData/.test(lookedUp))
    throw new Error("Ajv's code has changed: see `shortened`.");
  return lookedUp + helpers;
}

for (const { schema, out } of schemas) {
  const ajv = new Ajv2020({
    allErrors: true,
    strict: true,
    strictRequired: false,
    allowUnionTypes: true,
    // Of a step the errors of its own kind, and not those of every kind.
    discriminator: true,
    // What is more than a line is checked by one function, and not written out wherever it is referred to.
    inlineRefs: 2,
    // A plan's errors are told in sentences of our own (`explainSchemaErrors`).
    messages: schema !== PLAN,
    code: { source: true, lines: true },
  });
  const compiled = ajv.compile(bare(read(schema)));
  const code = gathering(standalone.default(ajv, compiled));
  write(`${out}.cjs`, madeFrom(schema) + (schema === PLAN ? shortened(code) : code));
  write(`${out}.d.cts`, declaration);
}

/** A reference with a description of its own beside it would be made a type of its own: it is wrapped instead. */
function wrapped(node) {
  if (Array.isArray(node)) return node.map(wrapped);
  if (typeof node !== "object" || node === null) return node;
  const { $ref, ...rest } = node;
  if ($ref && Object.keys(rest).length > 0) return { ...rest, allOf: [{ $ref }] };
  return Object.fromEntries(Object.entries(node).map(([key, value]) => [key, wrapped(value)]));
}

// The title is for readers of the schema; the type has a name of its own.
const types = await compile({ ...wrapped(read(PLAN)), title: "Plan" }, "Plan", {
  additionalProperties: false,
  // Lists stay lists, and do not become tuples of every length.
  ignoreMinAndMaxItems: true,
  bannerComment: madeFrom(PLAN),
  unreachableDefinitions: true,
});
write(
  "src/core/document/generated/plan.ts",
  types.replace(/ \*\n \* This interface was referenced by .*\n \* via .*\n/g, ""),
);

/** The limits of the schema that commands keep to as well. */
const limits = {
  MOST_DRIVES: properties.drives.maxItems,
  MOST_STEPS: properties.steps.maxItems,
  MOST_PRICES: properties.prices.maxItems,
  MOST_DATA_SETS: properties.dataSets.maxItems,
  MOST_BACKUPS: properties.backups.maxItems,
  MOST_BAYS: $defs.box.properties.bays.maximum,
  MOST_HISTORY: properties.history.maxItems,
  MOST_LOG: properties.log.maxItems,
  MOST_UNDER_WAY: properties.underWay.maxItems,
  MOST_PROGRESS: $defs.stepUnderWay.properties.readings.maxItems,
};
write(
  "src/core/document/generated/limits.ts",
  `${madeFrom(PLAN)}\n${Object.entries(limits)
    .map(([name, most]) => `export const ${name} = ${most};\n`)
    .join("")}`,
);
